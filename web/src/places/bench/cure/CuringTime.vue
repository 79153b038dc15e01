<script setup lang="ts">
import NumberBox from '@/shared/ui/NumberBox.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { dayText } from '@/shared/quantity/when'

/** How long: the rules side by side, the window, and the salt at the centre over the days; once done, as picked. */
const props = defineProps<{ time: Schemas['TimeOut']; inAt: string; isDone?: boolean }>()
const out = defineModel<number | null>('out', { required: true })
const WIDTH = 420
const HEIGHT = 118
const days = computed(() => Math.max(props.time.last + 3, Number(props.time.curve.at(-1)?.days ?? 0)))
const x = (day: number): number => (day / days.value) * WIDTH
const y = (percent: string): number => HEIGHT - (Number(percent) / 100) * (HEIGHT - 12)
const line = computed(() =>
  props.time.curve
    .map((point, at) => `${at ? 'L' : 'M'}${x(Number(point.days)).toFixed(1)} ${y(point.middle).toFixed(1)}`)
    .join(''),
)
const band = computed(() => {
  const above = props.time.curve.map(
    (point) => `${x(Number(point.days)).toFixed(1)} ${y(point.high).toFixed(1)}`,
  )
  const below = props.time.curve.map(
    (point) => `${x(Number(point.days)).toFixed(1)} ${y(point.low).toFixed(1)}`,
  )
  return above.length ? `M${above.join('L')}L${below.reverse().join('L')}Z` : ''
})
const ticks = computed(() => {
  const step = days.value > 16 ? 4 : days.value > 8 ? 2 : 1
  return Array.from({ length: Math.floor(days.value / step) + 1 }, (_, at) => at * step)
})
const on = (day: number): string =>
  dayText(new Date(new Date(props.inAt).getTime() + day * 864e5).toISOString())
const there = computed(() =>
  props.time.curve.reduce<Schemas['CentrePointOut'] | null>(
    (best, point) =>
      best === null ||
      Math.abs(Number(point.days) - props.time.out) < Math.abs(Number(best.days) - props.time.out)
        ? point
        : best,
    null,
  ),
)
</script>

<template>
  <div class="time">
    <p class="window">out between {{ on(time.first) }} and {{ on(time.last) }}</p>
    <svg
      :viewBox="`0 0 ${WIDTH} ${HEIGHT + 38}`"
      role="img"
      :aria-label="`Out between day ${time.first} and day ${time.last}`"
    >
      <rect :x="x(time.first)" y="0" :width="x(time.last) - x(time.first)" :height="HEIGHT" fill="#DCE9E2" />
      <path v-if="band" :d="band" fill="#D9657A" fill-opacity="0.16" />
      <path v-if="line" :d="line" fill="none" stroke="#B5304A" stroke-width="2.5" />
      <line x1="0" :x2="WIDTH" :y1="HEIGHT" :y2="HEIGHT" stroke="#8B9692" />
      <g v-if="there">
        <line
          :x1="x(time.out)"
          :x2="x(time.out)"
          y1="0"
          :y2="HEIGHT"
          stroke="#1B1F1E"
          stroke-dasharray="4 3"
        />
        <circle :cx="x(time.out)" :cy="y(there.middle)" r="4.5" fill="#1B1F1E" />
      </g>
      <text
        v-for="tick in ticks"
        :key="tick"
        :x="Math.max(4, Math.min(WIDTH - 8, x(tick)))"
        :y="HEIGHT + 18"
        text-anchor="middle"
      >
        {{ tick }}
      </text>
      <text :x="WIDTH" :y="HEIGHT + 33" text-anchor="end">days in the cure</text>
    </svg>
    <p v-if="there && time.center" class="small">
      Salt at the center on day {{ time.out }}: <b>{{ time.center }} %</b> of the salt outside (likely
      {{ Math.round(Number(there.low)) }} to {{ Math.round(Number(there.high)) }} %).
    </p>
    <p v-if="time.asks_thickness" class="outside">
      <span aria-hidden="true">▲</span> Measure the thickest part: without it the days are a guess.
    </p>
    <ul class="small">
      <li v-for="rule in time.rules" :key="rule">{{ rule }}.</li>
    </ul>
    <p v-if="isDone" class="small">
      Picked: day {{ time.out }}, <b>{{ on(time.out) }}</b>.
    </p>
    <div v-else class="out">
      <ActButton small aria-label="A day earlier" @click="out = Math.max(1, time.out - 1)"> − </ActButton>
      <NumberBox
        label="Out on day"
        :model-value="time.out"
        :min="1"
        :max="120"
        @update:model-value="out = $event ?? null"
      />
      <ActButton small aria-label="A day later" @click="out = Math.min(120, time.out + 1)"> + </ActButton>
      <b>{{ on(time.out) }}</b>
    </div>
    <p v-if="time.said" :class="time.state === 'early' ? 'outside' : 'quiet small'">
      <span v-if="time.state === 'early'" aria-hidden="true">▲</span> {{ time.said }}
    </p>
    <FoldAway class="quiet small" word="Where this comes from">
      The rules are common practice. {{ time.curve_source }}
    </FoldAway>
  </div>
</template>

<style scoped>
.time {
  display: grid;
  gap: 6px;
}

.window {
  color: var(--good);
  font-weight: 700;
  text-align: right;
}

svg {
  width: 100%;
}

text {
  font-family: inherit;
  font-size: 14px;
  fill: var(--quiet);
}

.out {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}

.out .field {
  width: 70px;
}

.outside {
  color: var(--care-ink);
  font-weight: 640;
}
</style>
