<script setup lang="ts">
import { scaleLinear, scaleTime } from 'd3-scale'
import { curveStepAfter, line } from 'd3-shape'
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { asDate, dayText } from '@/shared/quantity/when'

/** The prices of one thing over time: a step line for each source, told apart by shape as well as color. */
type Point = Schemas['PricePointOut']
const props = defineProps<{ lines: Schemas['PriceLineOut'][] }>()
const { cost, costText, money, unitWord } = useUnits()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
const wide = computed(() => Math.max(width.value, 220))
const all = computed(() => props.lines.flatMap((one) => one.points))
const colors = ['#B5304A', '#1A6B50', '#6F8F8A', '#B7791F', '#1B1F1E']
const dashes = ['', '6 4', '2 4', '10 3 2 3', '1 5']
const priceOf = (point: Point): number => Number(cost(point.price))
const x = computed(() => {
  const days = all.value.map((point) => asDate(point.on).getTime())
  const [first, last] = [Math.min(...days), Math.max(...days)]
  return scaleTime([new Date(first - 1), new Date(last + 1)], [40, wide.value - 12])
})
const y = computed(() => {
  const prices = all.value.map(priceOf)
  const [low, high] = [Math.min(...prices), Math.max(...prices)]
  const room = Math.max((high - low) * 0.15, high * 0.03)
  return scaleLinear([low - room, high + room], [110, 8])
})
const ticks = computed(() => y.value.ticks(3))
const days = computed(() => {
  const ordered = all.value.map((point) => point.on).sort()
  return { first: ordered[0] ?? '', last: ordered.at(-1) ?? '' }
})
const yearOf = (day: string): string => `${dayText(day)} ${day.slice(0, 4)}`
const drawn = computed(() =>
  props.lines.map((one, at) => ({
    ...one,
    color: colors[at % colors.length] ?? '#1B1F1E',
    dash: dashes[at % dashes.length] ?? '',
    path:
      line<Point>(
        (point) => x.value(asDate(point.on)),
        (point) => y.value(priceOf(point)),
      ).curve(curveStepAfter)(one.points) ?? '',
  })),
)
const said = computed(() =>
  props.lines.map((one) => `${one.source || 'no source'} ${costText(one.latest)}`).join(', '),
)
</script>

<template>
  <div ref="frame">
    <svg :viewBox="`0 0 ${wide} 134`" :width="wide" height="134" role="img" :aria-label="`Latest: ${said}`">
      <g v-for="tick in ticks" :key="tick">
        <line x1="40" :x2="wide - 12" :y1="y(tick)" :y2="y(tick)" stroke="#E4E8E6" />
        <text x="34" :y="y(tick) + 4" text-anchor="end">{{ money(tick.toFixed(2)) }}</text>
      </g>
      <template v-for="one in drawn" :key="one.source">
        <path :d="one.path" fill="none" :stroke="one.color" stroke-width="2.5" :stroke-dasharray="one.dash" />
        <circle
          v-for="point in one.points"
          :key="`${point.on} ${point.price.per_lb}`"
          :cx="x(asDate(point.on))"
          :cy="y(priceOf(point))"
          r="3.5"
          :fill="one.color"
        >
          <title>{{ one.source }}: {{ costText(point.price) }}, {{ yearOf(point.on) }}</title>
        </circle>
      </template>
      <text x="40" y="130">{{ yearOf(days.first) }}</text>
      <text v-if="days.last !== days.first" :x="wide - 12" y="130" text-anchor="end">
        {{ yearOf(days.last) }}
      </text>
    </svg>
    <ul>
      <li v-for="one in drawn" :key="one.source">
        <svg width="28" height="8" aria-hidden="true">
          <line
            x1="0"
            x2="28"
            y1="4"
            y2="4"
            :stroke="one.color"
            stroke-width="2.5"
            :stroke-dasharray="one.dash"
          />
        </svg>
        {{ one.source || 'no source' }} <b>{{ costText(one.latest) }}</b>
      </li>
    </ul>
    <p class="quiet small">a {{ unitWord }}, as last seen</p>
  </div>
</template>

<style scoped>
svg {
  display: block;
}

text {
  font-size: 12px;
  fill: var(--quiet);
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
}

li {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 14px;
}
</style>
