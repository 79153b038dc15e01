<script setup lang="ts">
import { NDatePicker } from 'naive-ui'
import { calendarNow } from '@/shared/quantity/when'

/** The days of a month to touch. Naive UI counts weekdays from Monday, countries from Sunday. */
const day = defineModel<string>({ required: true })
const first = ((calendarNow().week + 6) % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6
</script>

<template>
  <NDatePicker
    panel
    type="date"
    :actions="null"
    :first-day-of-week="first"
    value-format="yyyy-MM-dd"
    :formatted-value="day || null"
    @update:formatted-value="(chosen: string | null) => chosen && (day = chosen)"
  />
</template>
