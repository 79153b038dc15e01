<script setup lang="ts" generic="T">
import { useMediaQuery, useMutationObserver } from '@vueuse/core'
import { NSelect } from 'naive-ui'
import { computed, nextTick, ref, useAttrs, useId, type VNode } from 'vue'
import { useFieldFacts } from '@/shared/writing/formFacts'
import FieldItem from './FieldItem.vue'
import { listed, numberOf, optionsOf, type Option } from './options'

/**
 * One of many: the slot holds its `<option>`s. From eight on, what is typed narrows them. Under a finger it is
 * the device's own list.
 */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  label: string
  path?: string
  hint?: string | undefined
  problem?: string | null | undefined
  quietLabel?: boolean
  disabled?: boolean
}>()
const value = defineModel<T>({ required: true })
const MANY = 8

const id = useId()
const { class: place, style, ...attrs } = useAttrs()
const { fault } = useFieldFacts(() => props.path ?? '')
const hasSlip = computed(() => Boolean(fault.value || props.problem))
const isTouched = useMediaQuery('(pointer: coarse)')
const frame = ref<HTMLElement | null>(null)
const isOpen = ref(false)

/** A list that is open while more of its options come stays what it is: it would shut under the hand. */
let hasMany = false
function isLong(all: readonly Option[]): boolean {
  if (!isOpen.value) hasMany = all.length >= MANY
  return hasMany
}

function choose(one: Option | undefined): void {
  if (one) value.value = one.value as T
}

/** What is looked at in the open list. */
const pending = (): string => list.value?.querySelector('.n-base-select-option--pending')?.id ?? ''

/** What a screen reader needs and the list does not say of itself: that it is one, and what is looked at. */
const said = (): Record<string, string> => ({
  id,
  role: 'combobox',
  'aria-haspopup': 'listbox',
  'aria-expanded': String(isOpen.value),
  'aria-labelledby': `${id}-label`,
  'aria-invalid': String(hasSlip.value),
  'aria-disabled': String(props.disabled),
  'aria-controls': isOpen.value ? `${id}-list` : '',
  'aria-activedescendant': isOpen.value ? pending() : '',
})
function tell(): void {
  const box = frame.value?.querySelector('.n-base-selection-label')
  const field = box?.querySelector('input')
  // a field to filter in holds no word of what is chosen
  const described = field ? `${id}-word ${id}-detail` : `${id}-detail`
  for (const [name, word] of Object.entries({ ...said(), 'aria-describedby': described })) {
    // what got long enough to be filtered is said of the field from then on
    if (field) box?.removeAttribute(name)
    ;(field ?? box)?.setAttribute(name, word)
  }
}
/** The list while it is open: what is looked at in it moves by keys, by what is typed and by the pointer. */
const list = ref<HTMLElement | null>(null)
useMutationObserver(list, tell, { subtree: true, childList: true, attributeFilter: ['class'] })
function show(open: boolean): void {
  isOpen.value = open
  if (!open) list.value = null
  void nextTick(tell)
}
const menuProps = {
  id: `${id}-list`,
  role: 'listbox',
  'aria-label': 'choices',
  onVnodeMounted(menu: VNode) {
    list.value = menu.el as HTMLElement
    tell()
  },
}
/** By Tab it is the field that is come to, not the frame around it. */
function enter(event: FocusEvent): void {
  const box = event.target as HTMLElement
  if (box.matches('.n-base-selection-label')) box.querySelector('input')?.focus()
}
const nodeProps = (option: { value?: unknown }, chosen: number | null) => ({
  id: `${id}-${String(option.value)}`,
  role: 'option',
  'aria-selected': option.value === chosen,
})
</script>

<template>
  <FieldItem
    :id="id"
    :class="place"
    :style="style"
    :label="label"
    :quiet-label="quietLabel"
    :fault="problem || fault"
    :detail="hint"
    :roomy="path !== undefined"
  >
    <select
      v-if="isTouched"
      v-bind="attrs"
      :id="id"
      v-model="value"
      class="native"
      :disabled="disabled"
      :aria-describedby="`${id}-detail`"
      :aria-invalid="hasSlip || undefined"
    >
      <slot />
    </select>
    <div v-else ref="frame" class="frame" @focusin="enter">
      <template v-for="(all, at) in [optionsOf($slots['default']?.() ?? [])]" :key="at">
        <span :id="`${id}-word`" class="unseen">{{ all[numberOf(all, value) ?? -1]?.word }}</span>
        <NSelect
          :value="numberOf(all, value)"
          :options="listed(all)"
          :filterable="isLong(all)"
          :virtual-scroll="false"
          :disabled="disabled"
          :status="hasSlip ? 'error' : undefined"
          :menu-props="menuProps"
          :node-props="(one: object) => nodeProps(one as { value?: unknown }, numberOf(all, value))"
          placeholder=""
          @update:value="(chosen: number) => choose(all[chosen])"
          @update:show="show"
          @vue:mounted="tell"
          @vue:updated="tell"
        />
      </template>
    </div>
  </FieldItem>
</template>

<style scoped>
.frame {
  flex: 1;
  min-width: 0;
}
</style>
