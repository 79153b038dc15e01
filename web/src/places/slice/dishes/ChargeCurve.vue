<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** Food cost at each menu price, the kitchen's aim as a band of prices, and where the menu is now. */
const props = defineProps<{ page: Schemas['DishPage'] }>()
const { money, percent } = useUnits()
const [WIDE, LEFT, TOP, LOW] = [760, 30, 20, 128] as const
const points = computed(() =>
  props.page.curve.map((one) => [Number(one.price), Number(one.food_cost)] as const),
)
const x = computed(() => {
  const prices = points.value.map(([price]) => price)
  return scaleLinear([Math.min(...prices), Math.max(...prices)], [LEFT, WIDE - 20])
})
const y = scaleLinear([0, 70], [LOW, TOP]).clamp(true)
const path = computed(
  () =>
    line<readonly [number, number]>(
      ([price]) => x.value(price),
      ([, cost]) => y(cost),
    )(points.value) ?? '',
)
const band = computed(() => {
  const [from, to] = props.page.charge.map((one) => x.value(Number(one)))
  return from === undefined || to === undefined ? null : { from, to }
})
const now = computed(() => {
  const menu = props.page.menu
  if (!menu?.food_cost) return null
  return { x: x.value(Number(menu.price)), y: y(Number(menu.food_cost)), menu }
})
const label = (at: number): number => Math.min(WIDE - 80, Math.max(90, at))
</script>

<template>
  <svg v-if="points.length" :viewBox="`0 0 ${WIDE} 156`" role="img" aria-label="Food cost by menu price">
    <template v-if="band && page.aims">
      <rect
        :x="band.from"
        :y="TOP - 6"
        :width="Math.max(2, band.to - band.from)"
        :height="LOW - TOP + 6"
        fill="#E2EFE9"
      />
      <text :x="(band.from + band.to) / 2" y="11" text-anchor="middle" class="aim">
        {{ Number(page.aims.low) }} to {{ percent(Number(page.aims.high)) }}, the aim
      </text>
    </template>
    <line :x1="LEFT" :x2="WIDE - 20" :y1="LOW" :y2="LOW" stroke="#CBD2CE" />
    <path :d="path" fill="none" stroke="#B5304A" stroke-width="2.5" />
    <text v-for="tick in x.ticks(6)" :key="tick" :x="x(tick)" y="148" text-anchor="middle" class="tick">
      {{ money(tick.toFixed(2)) }}
    </text>
    <template v-if="now">
      <circle :cx="now.x" :cy="now.y" r="8" fill="#B5304A" />
      <text :x="label(now.x)" :y="now.y - 14" text-anchor="middle" class="now halo">
        {{ percent(Math.round(Number(now.menu.food_cost))) }} at {{ money(now.menu.price) }}
      </text>
    </template>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}

.tick {
  font-size: 13px;
  fill: var(--quiet);
}

.aim {
  font-size: 13px;
  font-weight: 640;
  fill: var(--good);
}

.now {
  font-weight: 700;
  fill: var(--rose);
}
</style>
