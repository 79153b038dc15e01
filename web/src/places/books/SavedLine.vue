<script setup lang="ts">
import { scaleLinear, scaleTime } from 'd3-scale'
import { line } from 'd3-shape'
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '@/shared/api/client'
import { useUnits, without } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'

/** What a year saved beside the shop, summed up batch by batch as each was finished. */
type Point = Schemas['SavedPointOut']
const props = defineProps<{ points: Point[]; year: number }>()
const router = useRouter()
const { money } = useUnits()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
const wide = computed(() => Math.max(width.value, 280))
const [TOP, LOW] = [28, 170] as const
const sums = computed(() => props.points.map((point) => Number(point.sum)))
const ends = computed(() => [Math.min(0, ...sums.value), Math.max(0, ...sums.value)] as const)
const y = computed(() => scaleLinear([ends.value[0], Math.max(ends.value[1], ends.value[0] + 1)], [LOW, TOP]))
const x = computed(() =>
  scaleTime([new Date(props.year, 0, 1), new Date(props.year + 1, 0, 1)], [8, wide.value - 70]),
)
const months = computed(() =>
  Array.from({ length: 12 }, (_, at) => new Date(props.year, at, 1)).map((month) => ({
    at: x.value(month),
    word: month.toLocaleDateString('en-US', { month: wide.value < 560 ? 'narrow' : 'short' }),
  })),
)
const path = computed(
  () =>
    line<Point>(
      (point) => x.value(new Date(point.at)),
      (point) => y.value(Number(point.sum)),
    )(props.points) ?? '',
)
const last = computed(() => props.points.at(-1))
const first = computed(() => props.points[0])
/** The batch that lost most, named where it did. */
const worst = computed(() => {
  const lost = props.points.filter((point) => Number(point.saved) < 0)
  return lost.sort((one, other) => Number(one.saved) - Number(other.saved))[0]
})
const said = (point: Point): string =>
  `${point.batches > 1 ? `${point.batches} batches up to ${point.code}` : point.code}, ${dayText(point.at)}: ` +
  `${Number(point.saved) < 0 ? 'lost' : 'saved'} ${money(without(point.saved))}, ${money(point.sum)} by then`
</script>

<template>
  <div ref="frame">
    <svg
      :viewBox="`0 0 ${wide} 196`"
      :width="wide"
      height="196"
      role="img"
      :aria-label="last ? `${money(last.sum)} by ${dayText(last.at)}` : 'nothing yet'"
    >
      <line x1="8" :x2="wide - 8" :y1="y(0)" :y2="y(0)" stroke="#1B1F1E" />
      <text v-for="month in months" :key="month.at" :x="month.at" y="192" class="month">
        {{ month.word }}
      </text>
      <path
        v-if="first"
        :d="`M${x(new Date(year, 0, 1))},${y(0)}L${x(new Date(first.at))},${y(Number(first.sum))}`"
        fill="none"
        stroke="#1A6B50"
        stroke-width="2"
        stroke-dasharray="3 4"
      />
      <path :d="path" fill="none" stroke="#1A6B50" stroke-width="3" stroke-linejoin="round" />
      <g
        v-for="point in points"
        :key="point.code"
        class="hit"
        @click="router.push({ name: 'strip', params: { code: point.code } })"
      >
        <title>{{ said(point) }}</title>
        <circle :cx="x(new Date(point.at))" :cy="y(Number(point.sum))" r="10" fill="transparent" />
        <path
          v-if="Number(point.saved) < 0"
          :transform="`translate(${x(new Date(point.at))},${y(Number(point.sum))})`"
          d="M-6,-4L6,-4L0,7Z"
          fill="#B5304A"
        />
        <circle v-else :cx="x(new Date(point.at))" :cy="y(Number(point.sum))" r="4.5" fill="#1A6B50" />
      </g>
      <text
        v-if="worst"
        :x="Math.min(x(new Date(worst.at)), wide - 160)"
        :y="Math.min(y(Number(worst.sum)) + 22, 178)"
        class="worst"
      >
        {{ worst.code }} lost {{ money(without(worst.saved)) }}
      </text>
      <text
        v-if="last"
        :x="x(new Date(last.at)) + 9"
        :y="Math.max(y(Number(last.sum)) - 10, 20)"
        class="sum"
        :class="{ dear: Number(last.sum) < 0 }"
        :text-anchor="x(new Date(last.at)) > wide - 110 ? 'end' : 'start'"
      >
        {{ money(last.sum) }}
      </text>
    </svg>
  </div>
</template>

<style scoped>
svg {
  display: block;
  overflow: visible;
}

.hit {
  cursor: pointer;
}

.month {
  font-size: 12px;
  fill: var(--quiet);
}

.worst {
  font-size: 12px;
  font-stretch: 82%;
  font-weight: 650;
  fill: var(--rose-deep);
}

.sum {
  font-size: 22px;
  font-weight: 750;
  font-stretch: 110%;
  fill: var(--good);
}

.sum.dear {
  fill: var(--rose-deep);
}
</style>
