<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import { timeText } from '@/shared/quantity/when'
import { apart } from '@/places/fire/apart'
import type { Live } from '@/places/fire/useFires'
import { BOTTOM, fireScale, hourTicks, layStages, LEFT, lines, TOP, wideOf } from './fireScale'
import { useUnits } from '@/shared/quantity/useUnits'

/** The stages, the air, the insides, and the fan of when the coldest will be there, over the hours. */
const props = defineProps<{ live: Live }>()
const { figure } = useUnits()
const isPhone = useMediaQuery('(max-width: 719px)')
const wide = computed(() => wideOf(isPhone.value))
const scale = computed(() => fireScale(props.live, wide.value))
const right = computed(() => scale.value.right)
const x = (at: number): number => scale.value.x(at)
const y = (of: number): number => scale.value.y(of)
const isFahrenheit = computed(() => props.live.unit === 'F')
const danger = computed(() => (isFahrenheit.value ? [40, 140] : [4.4, 60]))
const hours = computed(() => hourTicks(props.live.begun_at, scale.value.end, isPhone.value ? 4 : 9))
const degrees = computed(() => scale.value.y.ticks(6))
const nowX = computed(() => x(scale.value.now))
const pull = computed(() => (props.live.pull_at && !props.live.out_at ? Number(props.live.pull_at) : null))
const isColdest = (id: string): boolean => id === props.live.coldest_probe
const curves = computed(() => props.live.curves.map((one) => ({ ...one, path: lines(one.points, x, y) })))
const last = computed(() =>
  props.live.curves.flatMap((one) => {
    const point = one.points.findLast((found) => found !== null)
    return one.is_now && point
      ? [{ id: one.id, at: point[0] ?? 0, of: point[1] ?? 0, text: `${one.piece} ${figure(one.now ?? '')}` }]
      : []
  }),
)
const labels = computed(() =>
  apart(
    last.value.map((one) => y(one.of) + 4),
    14,
  ),
)
const fills = { over: '#D5DBD8', now: '#20272A', ahead: '#FFFFFF' } as const
const stages = computed(() => layStages(props.live, scale.value))
const coldest = computed(() => last.value.find((one) => isColdest(one.id)) ?? null)
/** From where the coldest is now to the temperature wanted, at the earlier and the later end of the range. */
const fan = computed(() => {
  const ready = props.live.ready
  if (!ready?.low || !ready.high || !ready.likely || ready.why === 'reached' || pull.value === null)
    return null
  if (!coldest.value) return null
  const from = [x(coldest.value.at), y(coldest.value.of)] as const
  return {
    from,
    low: scale.value.at(ready.low),
    likely: scale.value.at(ready.likely),
    high: scale.value.at(ready.high),
  }
})
const marks = computed(() =>
  props.live.troubles
    .filter((one) => one.code !== 'gap')
    .map((one) => ({ ...one, at: scale.value.at(one.begun_at) })),
)
const description = computed(() => {
  const inside = props.live.coldest
    ? `coldest inside ${figure(props.live.coldest)} °${props.live.unit}`
    : 'no inside read'
  return `Since ${timeText(props.live.begun_at)}: ${inside}${props.live.air ? `, air ${figure(props.live.air)}` : ''}.`
})
</script>

<template>
  <svg :viewBox="`0 0 ${wide} 380`" role="img" :aria-label="description">
    <rect
      :x="LEFT"
      :y="y(danger[1]!)"
      :width="right - LEFT"
      :height="Math.max(0, Math.min(y(danger[0]!), BOTTOM) - y(danger[1]!))"
      fill="#FAF6EC"
    />
    <text :x="right - 4" :y="BOTTOM - 14" text-anchor="end" class="danger">
      {{ danger[0] }} to {{ danger[1] }} °{{ live.unit }}: not for long
    </text>
    <g v-for="tick in degrees" :key="tick">
      <line :x1="LEFT" :x2="right" :y1="y(tick)" :y2="y(tick)" stroke="#E3E7E4" />
      <text :x="LEFT - 8" :y="y(tick) + 4" text-anchor="end" class="tick">{{ tick }}</text>
    </g>
    <g v-for="tick in hours" :key="tick.at">
      <line :x1="x(tick.at)" :x2="x(tick.at)" :y1="BOTTOM" :y2="BOTTOM + 5" stroke="#8B9692" />
      <text :x="x(tick.at)" :y="BOTTOM + 20" text-anchor="middle" class="tick">{{ tick.text }}</text>
    </g>
    <g v-for="(stage, index) in stages" :key="index">
      <rect
        :x="stage.from"
        y="8"
        :width="stage.wide"
        height="22"
        rx="3"
        :fill="fills[stage.is]"
        :stroke="stage.is === 'ahead' ? '#8B9692' : 'none'"
        :stroke-dasharray="stage.is === 'ahead' ? '3 3' : undefined"
      />
      <text
        v-if="stage.wide > 60"
        :x="stage.from + 7"
        y="24"
        class="stage"
        :fill="stage.is === 'now' ? '#FFFFFF' : '#1B1F1E'"
      >
        {{ stage.label }}
      </text>
    </g>
    <path :d="lines(live.air_points, x, y)" fill="none" stroke="#6F8F8A" stroke-width="1.6" />
    <text v-if="live.air_points[0]" :x="LEFT + 6" :y="TOP + 12" class="air">
      air {{ figure(live.air ?? '') }}
    </text>
    <template v-if="pull !== null">
      <line :x1="LEFT" :x2="right" :y1="y(pull)" :y2="y(pull)" stroke="#1B1F1E" stroke-dasharray="6 4" />
      <text :x="right" :y="y(pull) - 6" text-anchor="end" class="pull halo">
        pull at {{ figure(String(pull)) }} inside
      </text>
    </template>
    <template v-if="fan && pull !== null">
      <path
        :d="`M${fan.from[0]} ${fan.from[1]}L${fan.low} ${y(pull)}H${fan.high}Z`"
        fill="#D9657A"
        fill-opacity="0.22"
      />
      <path
        :d="`M${fan.from[0]} ${fan.from[1]}L${fan.likely} ${y(pull)}`"
        stroke="#8E1F38"
        stroke-width="2.4"
        stroke-dasharray="2 5"
        fill="none"
      />
      <rect :x="fan.low" :y="BOTTOM - 8" :width="Math.max(fan.high - fan.low, 3)" height="8" fill="#8E1F38" />
    </template>
    <path
      v-for="one in curves"
      :key="one.id"
      :d="one.path"
      fill="none"
      :stroke="isColdest(one.id) ? '#8E1F38' : '#D9657A'"
      :stroke-width="isColdest(one.id) ? 3 : 2"
      :stroke-opacity="one.is_now ? 1 : 0.45"
    />
    <line :x1="nowX" :x2="nowX" :y1="TOP - 8" :y2="BOTTOM" stroke="#B5304A" stroke-width="1.6" />
    <g v-for="(one, index) in last" :key="one.id">
      <circle :cx="x(one.at)" :cy="y(one.of)" r="4.5" :fill="isColdest(one.id) ? '#8E1F38' : '#D9657A'" />
      <text
        :x="x(one.at) - 9"
        :y="labels[index]"
        text-anchor="end"
        class="halo probe"
        :class="{ coldest: isColdest(one.id) }"
      >
        {{ one.text }}
      </text>
    </g>
    <g
      v-for="(one, index) in live.by_hand"
      :key="`hand ${index}`"
      :transform="`translate(${x(one.seconds)} ${y(one.degrees)})`"
    >
      <title>
        {{ one.piece }}{{ one.where ? `, ${one.where}` : '' }} by hand: {{ figure(String(one.degrees)) }}
      </title>
      <path d="M-6 0L0 -6L6 0L0 6Z" fill="#FFFFFF" stroke="#8E1F38" stroke-width="2" />
    </g>
    <g v-for="one in marks" :key="one.code + one.begun_at" :transform="`translate(${one.at} ${BOTTOM - 18})`">
      <path d="M-7 6L7 6L0 -7Z" fill="#B7791F" />
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

.stage {
  font-size: 12px;
  font-weight: 640;
  font-stretch: 88%;
}

.danger {
  font-size: 12px;
  font-stretch: 82%;
  fill: var(--care-ink);
}

.air {
  font-size: 13px;
  font-weight: 640;
  fill: #4f6f6a;
}

.pull {
  font-size: 12px;
  font-weight: 640;
  font-stretch: 88%;
}

.probe {
  font-size: 13px;
  font-weight: 700;
  fill: #a83f57;
}

.coldest {
  fill: var(--rose-deep);
}
</style>
