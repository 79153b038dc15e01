<script setup lang="ts">
import { scaleLinear, scaleTime } from 'd3-scale'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { asDate, dayText, momentText } from '@/shared/quantity/when'
import { useUnits } from '@/shared/quantity/useUnits'

/** A chamber's air of the last days: two curves, and how long each lay outside of what dries well. */
const props = defineProps<{ chamber: Schemas['HeardOut']; unit: string }>()
const { figure, percent } = useUnits()
const [WIDE, LEFT, TOP, BOTTOM] = [360, 40, 8, 74]
const curves = computed(() =>
  [
    { name: `°${props.unit}`, points: props.chamber.temps, color: '#4F6F6A' },
    { name: '% humidity', points: props.chamber.humidities, color: '#7A4D0C' },
  ].filter((one) => one.points.length > 1),
)
function lay(points: Schemas['AirPointOut'][]) {
  const values = points.map((one) => one.value)
  const y = scaleLinear([Math.min(...values) - 2, Math.max(...values) + 2], [BOTTOM, TOP]).nice(3)
  const [first, last] = [points[0], points.at(-1)]
  const x = scaleTime([asDate(first?.at ?? ''), asDate(last?.at ?? '')], [LEFT, WIDE - 6])
  const d = points.map(
    (one, at) => `${at ? 'L' : 'M'}${x(asDate(one.at)).toFixed(1)} ${y(one.value).toFixed(1)}`,
  )
  return { d: d.join(''), ticks: y.ticks(3).map((tick) => ({ tick, y: y(tick) })) }
}
/** Days, or times where all of it is of one day. */
const ends = (points: Schemas['AirPointOut'][]): string[] => {
  const [first, last] = [points[0]?.at ?? '', points.at(-1)?.at ?? '']
  return [first, last].map(dayText(first) === dayText(last) ? momentText : dayText)
}
</script>

<template>
  <section class="panel" :aria-label="`Air of ${chamber.name}`">
    <h2>
      {{ chamber.name }}
      <span class="quiet">
        {{ chamber.is_heard ? '' : 'not heard, last ' }}{{ figure(chamber.temp ?? '–') }} °{{ unit }},
        {{ percent(chamber.humidity && Number(chamber.humidity)) }}</span
      >
    </h2>
    <figure v-for="one in curves" :key="one.name">
      <svg :viewBox="`0 0 ${WIDE} 96`" role="img" :aria-label="`${one.name} of the last days`">
        <g v-for="{ tick, y } in lay(one.points).ticks" :key="tick">
          <line :x1="LEFT" :x2="WIDE - 6" :y1="y" :y2="y" stroke="#E3E7E4" />
          <text :x="LEFT - 6" :y="y + 4" text-anchor="end" class="tick">{{ figure(String(tick)) }}</text>
        </g>
        <path :d="lay(one.points).d" fill="none" :stroke="one.color" stroke-width="2" />
        <text :x="LEFT" y="92" class="tick">{{ ends(one.points)[0] }}</text>
        <text :x="WIDE - 6" y="92" text-anchor="end" class="tick">
          {{ ends(one.points)[1] }}
        </text>
      </svg>
      <figcaption class="quiet small">{{ one.name }}</figcaption>
    </figure>
    <ul v-if="chamber.outside.length" aria-label="Out of range">
      <li v-for="one in chamber.outside" :key="one">▲ {{ one }}</li>
    </ul>
    <p v-else-if="curves.length" class="good">✓ within range</p>
    <p class="quiet small">In the last {{ chamber.days }} days; {{ chamber.source }}.</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
}

figure {
  margin: 0;
}

svg {
  display: block;
  width: 100%;
}

.tick {
  font-size: 11px;
  fill: var(--quiet);
}
</style>
