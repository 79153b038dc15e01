<script setup lang="ts">
import { NInput } from 'naive-ui'
import { computed, useAttrs, useId } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { useFieldFacts } from '@/shared/writing/formFacts'
import FieldItem from './FieldItem.vue'

/** What is typed; under it how the server read it ("4 lb 6 oz"), or what is wrong with it. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  label: string
  /** Where the value stands in the body sent, as `pieces[0].weight`; none: it is not read while it is typed. */
  path?: string
  placeholder?: string | undefined
  hint?: string | undefined
  /** What is wrong with it, where the form knows that itself. */
  problem?: string | null | undefined
  quietLabel?: boolean
  /** No room is kept for the line below it. */
  tight?: boolean
  suggestions?: Iterable<string>
  inputmode?: 'text' | 'decimal' | 'numeric' | 'none'
  type?: 'text' | 'password' | 'search' | 'textarea'
  autocomplete?: string
  maxlength?: number | string
}>()
const [value, modifiers] = defineModel<string, 'lazy' | 'trim'>({ required: true })

const id = useId()
const { class: place, style, ...attrs } = useAttrs()
const { weightText, otherText, money } = useUnits()
const { reading, fault } = useFieldFacts(() => props.path ?? '')
const read = computed(() => {
  const found = reading.value
  if (found?.weight) return `${weightText(found.weight)} · ${otherText(found.weight)}`
  if (found?.money) return `comes to ${money(found.money)}`
  return null
})
const inputProps = computed(() => ({
  ...attrs,
  id,
  ...(props.type === 'search' ? { type: 'search' } : {}),
  inputmode: props.inputmode ?? ('text' as const),
  autocomplete: props.autocomplete ?? 'off',
  list: props.suggestions ? `${id}-list` : undefined,
  'aria-describedby': `${id}-detail`,
  'aria-invalid': fault.value || props.problem ? ('true' as const) : undefined,
}))
const typeOf = computed(() => (props.type === 'password' || props.type === 'textarea' ? props.type : 'text'))
const set = (typed: string): string => (value.value = modifiers.trim ? typed.trim() : typed)
const on = computed(() => (modifiers.lazy ? { change: set } : { 'update:value': set }))
</script>

<template>
  <FieldItem
    :id="id"
    :class="place"
    :style="style"
    :label="label"
    :quiet-label="quietLabel"
    :fault="problem || fault"
    :detail="read ?? hint"
    :roomy="path !== undefined && !tight"
  >
    <NInput
      :value="value"
      :type="typeOf"
      :placeholder="placeholder ?? ''"
      :status="fault || problem ? 'error' : undefined"
      :input-props="inputProps"
      :maxlength="maxlength ?? 80"
      v-on="on"
    />
    <datalist v-if="suggestions" :id="`${id}-list`">
      <option v-for="one in suggestions" :key="one" :value="one" />
    </datalist>
  </FieldItem>
</template>
