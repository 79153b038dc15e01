<script setup lang="ts">
import { CalendarDays } from '@lucide/vue'
import { useMediaQuery } from '@vueuse/core'
import { NButton, NInput, NPopover } from 'naive-ui'
import { computed, defineAsyncComponent, ref, useAttrs, useId, watch } from 'vue'
import { later, readDay, readTime } from '@/shared/quantity/typedTime'
import { calendarNow, clockText, todayHere, yearDayText } from '@/shared/quantity/when'
import FieldItem from './FieldItem.vue'

/**
 * A day, a time, or both, by the kitchen's clock: "2026-03-02", "14:02", "2026-03-02T14:02"; empty: none.
 * Typed as the country writes it, or chosen in a month; under a finger the device's own picker.
 */
defineOptions({ inheritAttrs: false })
const {
  kind = 'date',
  hint = undefined,
  problem = null,
} = defineProps<{
  label: string
  kind?: 'date' | 'time' | 'datetime-local'
  quietLabel?: boolean
  hint?: string | undefined
  problem?: string | null | undefined
}>()
const value = defineModel<string>({ required: true })
const DayPanel = defineAsyncComponent(() => import('./DayPanel.vue'))
const NOON = '12:00'

const id = useId()
const { class: place, style, ...attrs } = useAttrs()
const isTouched = useMediaQuery('(pointer: coarse)')
const day = computed(() => (kind === 'time' ? '' : value.value.slice(0, 10)))
const time = computed(() => (kind === 'time' ? value.value : value.value.slice(11, 16)))
const typedDay = ref('')
const typedTime = ref('')
const slip = ref('')
const isShown = ref(false)
/** Pasted, a day may bring its time along. */
const pasted = (): string[] => /^(\d{4}-\d\d-\d\d)T(\d\d:\d\d)/.exec(typedDay.value)?.slice(1) ?? []
function dayRead(): string | null {
  const [bare = typedDay.value] = pasted()
  return bare.trim() ? readDay(bare, calendarNow().order, todayHere()) : ''
}
const timeRead = (): string | null => (typedTime.value.trim() ? readTime(typedTime.value) : '')

/** What is typed is let stand while it says what the value is, and put in the country's form when it is left. */
function show(): void {
  typedDay.value = day.value && yearDayText(day.value)
  typedTime.value = time.value && clockText(time.value)
}
watch(
  value,
  () => {
    slip.value = ''
    if ((kind !== 'time' && dayRead() !== day.value) || (kind !== 'date' && timeRead() !== time.value)) show()
  },
  { immediate: true },
)

function set(newDay: string, newTime: string): void {
  slip.value = ''
  if (kind === 'date') value.value = newDay
  else if (kind === 'time') value.value = newTime
  else value.value = newDay && `${newDay}T${newTime || NOON}`
}
function chooseDay(chosen: string): void {
  isShown.value = false
  set(chosen, time.value)
}
function takeDay(isLeft: boolean): void {
  const read = dayRead()
  if (read !== null) set(read, pasted()[1] ?? time.value)
  else if (isLeft) slip.value = `“${typedDay.value}” is not a day: write it like ${yearDayText(todayHere())}.`
  if (isLeft && read !== null) show()
}
function takeTime(isLeft: boolean): void {
  const read = timeRead()
  if (read !== null) set(day.value || (read && todayHere()), read)
  else if (isLeft) slip.value = `“${typedTime.value}” is not a time: write it like ${clockText('14:30')}.`
  if (isLeft && read !== null) show()
}
/** Up and down go a day on and back. */
function walk(event: KeyboardEvent): void {
  const days = { ArrowUp: 1, ArrowDown: -1 }[event.key]
  if (!days || !day.value) return
  event.preventDefault()
  set(later(day.value, days), time.value)
}
const clockProps = { 'aria-label': 'time', 'aria-describedby': `${id}-label`, autocomplete: 'off' }
const inputProps = computed(() => ({
  ...attrs,
  id,
  autocomplete: 'off',
  'aria-describedby': `${id}-detail`,
  'aria-invalid': slip.value || problem ? ('true' as const) : undefined,
}))
</script>

<template>
  <FieldItem
    :id="id"
    :class="place"
    :style="style"
    :label="label"
    :quiet-label="quietLabel"
    :fault="slip || problem"
    :detail="hint"
  >
    <input v-if="isTouched" v-bind="inputProps" v-model.lazy="value" class="native" :type="kind" />
    <div v-else class="both">
      <NInput
        v-if="kind !== 'time'"
        v-model:value="typedDay"
        class="day"
        :input-props="inputProps"
        :status="slip || problem ? 'error' : undefined"
        placeholder=""
        @update:value="takeDay(false)"
        @change="takeDay(true)"
        @keydown="walk"
      >
        <template #suffix>
          <NPopover v-model:show="isShown" trigger="click" placement="bottom-end" raw>
            <template #trigger>
              <NButton text tabindex="-1" aria-hidden="true">
                <CalendarDays :size="18" aria-hidden="true" />
              </NButton>
            </template>
            <DayPanel :model-value="day" @update:model-value="chooseDay" />
          </NPopover>
        </template>
      </NInput>
      <NInput
        v-if="kind !== 'date'"
        v-model:value="typedTime"
        class="time"
        :input-props="kind === 'time' ? inputProps : clockProps"
        placeholder=""
        @update:value="takeTime(false)"
        @change="takeTime(true)"
      />
    </div>
  </FieldItem>
</template>

<style scoped>
.both {
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  min-width: 0;
}

.day {
  flex: 1 1 150px;
  font-stretch: 86%;
}

.time {
  flex: 1 0 96px;
}
</style>
