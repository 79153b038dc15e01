<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import { apart } from '@/places/fire/apart'
import { BOTTOM, colorOf, LEFT, lossScale, path } from './lossScale'
import type { Hanging } from './useChamber'

/** Loss since green weight goes down as the weight does; dots are weighings, the bar is when it is ready. */
const props = defineProps<{ hanging: Hanging[] }>()
const isPhone = useMediaQuery('(max-width: 719px)')
const wide = computed(() => (isPhone.value ? 390 : 800))
const scale = computed(() => lossScale(props.hanging, wide.value))
const x = (day: number): number => scale.value.x(day)
const y = (lost: number): number => scale.value.y(lost)
const days = computed(() => scale.value.x.ticks(isPhone.value ? 4 : 8))
const losses = computed(() => scale.value.y.ticks(5))
const drawn = computed(() =>
  props.hanging.map((one, index) => ({
    one,
    color: colorOf(index),
    dots: [{ day: 0, lost: 0 }, ...one.dots],
    last: one.dots.at(-1) ?? { day: 0, lost: 0 },
    isDone: one.why === 'reached',
  })),
)
/** Labels and bars that would lie on each other are drawn below each other. */
const labels = computed(() =>
  apart(
    drawn.value.map(({ last }) => y(last.lost) - 6),
    14,
  ),
)
const bar = (one: Hanging, index: number): number => y(Number(one.target)) + index * 9
const description = computed(() =>
  props.hanging.map((one) => `${one.label} has lost ${one.lost} of ${one.target} per cent`).join('; '),
)
</script>

<template>
  <svg :viewBox="`0 0 ${wide} 360`" role="img" :aria-label="description">
    <g v-for="tick in losses" :key="tick">
      <line :x1="LEFT" :x2="scale.right" :y1="y(tick)" :y2="y(tick)" stroke="#E3E7E4" />
      <text :x="LEFT - 8" :y="y(tick) + 4" text-anchor="end" class="tick">
        {{ tick ? `−${tick} %` : 'green' }}
      </text>
    </g>
    <g v-for="tick in days" :key="tick">
      <line :x1="x(tick)" :x2="x(tick)" :y1="BOTTOM" :y2="BOTTOM + 5" stroke="#8B9692" />
      <text :x="x(tick)" :y="BOTTOM + 19" text-anchor="middle" class="tick">day {{ tick }}</text>
    </g>
    <g v-for="({ one, color, dots, last, isDone }, index) in drawn" :key="one.id">
      <path :d="path(one.line, x, y)" fill="none" :stroke="color" stroke-width="2.4" />
      <template v-if="one.low_day !== null && one.high_day !== null && !isDone">
        <path
          :d="`M${x(last.day)} ${y(last.lost)}L${x(one.low_day)} ${y(Number(one.target))}H${x(one.high_day)}Z`"
          :fill="color"
          fill-opacity="0.18"
        />
        <line
          :x1="x(one.low_day)"
          :x2="x(one.high_day)"
          :y1="bar(one, index)"
          :y2="bar(one, index)"
          :stroke="color"
          stroke-width="8"
          stroke-linecap="round"
        />
      </template>
      <circle v-for="dot in dots" :key="dot.day" :cx="x(dot.day)" :cy="y(dot.lost)" r="4" :fill="color" />
      <text :x="x(last.day) + 8" :y="labels[index]" class="name halo" :fill="color">{{ one.label }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}

.tick {
  font-size: 12px;
  font-stretch: 88%;
  fill: var(--quiet);
}

.name {
  font-size: 13px;
  font-weight: 700;
}
</style>
