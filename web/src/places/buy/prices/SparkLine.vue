<script setup lang="ts">
import { computed } from 'vue'
import type { Item } from './usePrices'

/** A small line of the prices seen, by day; the last one marked. */
const props = withDefaults(defineProps<{ history: Item['history']; wide?: number; high?: number }>(), {
  wide: 120,
  high: 30,
})
const points = computed(() => {
  const seen = props.history.map((point) => ({ day: Date.parse(point.on), price: Number(point.each) }))
  const [days, prices] = [seen.map((one) => one.day), seen.map((one) => one.price)]
  const [from, to] = [Math.min(...days), Math.max(...days)]
  const [low, high] = [Math.min(...prices), Math.max(...prices)]
  return seen.map(({ day, price }) => ({
    x: to === from ? props.wide / 2 : 5 + ((day - from) / (to - from)) * (props.wide - 10),
    y: high === low ? props.high / 2 : 5 + ((high - price) / (high - low)) * (props.high - 10),
  }))
})
const last = computed(() => points.value.at(-1))
const line = computed(() => points.value.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' '))
</script>

<template>
  <svg :width="wide" :height="high" :viewBox="`0 0 ${wide} ${high}`" aria-hidden="true">
    <polyline :points="line" fill="none" stroke="#5A6461" stroke-width="1.6" />
    <circle v-if="last" :cx="last.x" :cy="last.y" r="3.4" fill="#B5304A" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
</style>
