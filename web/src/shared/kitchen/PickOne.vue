<script setup lang="ts">
import { useId } from 'vue'
import { useFieldFacts } from '@/shared/writing/formFacts'

/** One of many, in the device's own list. */
const props = defineProps<{
  label: string
  path: string
  choices: { value: string; word: string }[]
  hint?: string
  disabled?: boolean
}>()
const value = defineModel<string>({ required: true })
const id = useId()
const { fault } = useFieldFacts(() => props.path)
</script>

<template>
  <div>
    <label :for="id">{{ label }}</label>
    <select
      :id="id"
      v-model="value"
      class="box"
      :disabled="disabled"
      :aria-describedby="`${id}-detail`"
      :aria-invalid="fault ? 'true' : undefined"
    >
      <option v-for="one in choices" :key="one.value" :value="one.value">{{ one.word }}</option>
    </select>
    <p :id="`${id}-detail`" class="small" :class="fault ? 'dear' : 'quiet'">{{ fault || hint }}</p>
  </div>
</template>

<style scoped>
label {
  display: block;
  font-weight: 600;
  font-size: 14px;
  margin-bottom: 3px;
}

select {
  width: 100%;
}

p {
  min-height: 18px;
}
</style>
