<script setup lang="ts">
import { NInput } from 'naive-ui'
import { computed, useId } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { useFieldFacts } from '@/shared/writing/formFacts'

const props = defineProps<{
  label: string
  /** Where the value stands in the body sent, as `pieces[0].weight`. */
  path: string
  placeholder?: string
  hint?: string
  /** Hide the label from sight, not from hearing; for rows under a shared heading. */
  quietLabel?: boolean
  suggestions?: string[]
  inputmode?: 'text' | 'decimal' | 'numeric'
  password?: boolean
  autocomplete?: string
}>()
const value = defineModel<string>({ required: true })

const id = useId()
const { weightText, otherText, money } = useUnits()
const { reading, fault } = useFieldFacts(() => props.path)
const read = computed(() => {
  const found = reading.value
  if (found?.weight) return `${weightText(found.weight)} · ${otherText(found.weight)}`
  if (found?.money) return `comes to ${money(found.money)}`
  return null
})
const inputProps = computed(() => ({
  id,
  inputmode: props.inputmode ?? ('text' as const),
  autocomplete: props.autocomplete ?? 'off',
  list: props.suggestions ? `${id}-list` : undefined,
  'aria-describedby': `${id}-detail`,
  'aria-invalid': fault.value ? ('true' as const) : undefined,
}))
</script>

<template>
  <div class="field">
    <label :for="id" :class="{ unseen: quietLabel }">{{ label }}</label>
    <NInput
      v-model:value="value"
      :type="password ? 'password' : 'text'"
      :placeholder="placeholder ?? ''"
      :status="fault ? 'error' : undefined"
      :input-props="inputProps"
      :maxlength="80"
    />
    <datalist v-if="suggestions" :id="`${id}-list`">
      <option v-for="one in suggestions" :key="one" :value="one" />
    </datalist>
    <p :id="`${id}-detail`" class="detail" :class="{ fault }">
      <template v-if="fault"><span aria-hidden="true">▲</span> {{ fault }}</template>
      <template v-else-if="read">{{ read }}</template>
      <template v-else-if="hint">{{ hint }}</template>
    </p>
  </div>
</template>

<style scoped>
.field {
  min-width: 0;
}

label {
  display: block;
  font-weight: 600;
  font-size: 14px;
  margin-bottom: 3px;
}

.detail {
  min-height: 18px;
  font-size: 13px;
  line-height: 18px;
  color: var(--quiet);
  font-stretch: 88%;
}

.detail.fault {
  color: var(--rose-deep);
  font-weight: 600;
}
</style>
