<script setup lang="ts">
import { computed } from 'vue'
import type { PieceFire } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { hoursText, momentText } from '@/shared/quantity/when'

/** What the fire a piece came out of adds to its step: how long it was in, work, and its share of the fuel. */
const props = defineProps<{ fire: PieceFire }>()
const { money } = useUnits()
const hours = computed(() => {
  const { begun_at, out_at } = props.fire
  return out_at ? hoursText((Date.parse(out_at) - Date.parse(begun_at)) / 1000) : ''
})
const takes = computed(() => {
  const work = props.fire.minutes === '0' ? [] : [`${props.fire.minutes} min of work`]
  return [...work, ...props.fire.used.map((line) => `${line.what} ${money(line.price)}`)]
})
</script>

<template>
  <p class="out">
    Out of <b>{{ fire.name }}</b> {{ momentText(fire.out_at!) }}, after {{ hours }}.
    <template v-if="takes.length">Goes into this step: {{ takes.join(', ') }}.</template>
  </p>
</template>

<style scoped>
.out {
  color: #b9c3bf;
}
</style>
