<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import { computed } from 'vue'
import { kinds, OWN } from '@/places/bench/log/forms/stepDraft'

/** Which step is weighed for: the usual ones, and the one at hand where it has a name of its own. */
const props = defineProps<{ kind: string }>()
const emit = defineEmits<{ choose: [kind: string] }>()
const steps = computed(() => {
  const usual = kinds.filter((one) => one.value !== OWN)
  return usual.some((one) => one.value === props.kind)
    ? usual
    : [{ value: props.kind, word: props.kind || 'choose one' }, ...usual]
})
</script>

<template>
  <SelectBox class="step" label="Step" :model-value="kind" @update:model-value="emit('choose', $event)">
    <option v-for="one in steps" :key="one.value" :value="one.value">{{ one.word }}</option>
  </SelectBox>
</template>

<style scoped>
.step {
  display: flex;
  gap: 10px;
  align-items: center;
  color: #b9c3bf;
}
</style>
