<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'

/** Is it too much: the nitrite that goes in against the limit, with the scale's own error. */
const props = defineProps<{ gauge: Schemas['GaugeOut'] }>()
const WIDTH = 420
const most = computed(
  () =>
    Math.max(Number(props.gauge.limit) * 1.12, Number(props.gauge.high ?? 0), Number(props.gauge.ppm ?? 0)) *
    1.02,
)
const at = (value: string | null | undefined): number => (Number(value ?? 0) / most.value) * WIDTH
const short = (value: string): string => value.replace(/\.0$/, '')
const verdict = computed(() => {
  if (props.gauge.ppm === null) return { word: 'not known', kind: 'care' }
  if (props.gauge.is_at_rule) return { word: 'at the limit', kind: 'good' }
  if (props.gauge.is_over) return { word: 'over the limit', kind: 'over' }
  if (props.gauge.high && Number(props.gauge.high) > Number(props.gauge.limit))
    return { word: 'may be over', kind: 'care' }
  return { word: 'within the limit', kind: 'good' }
})
</script>

<template>
  <div class="gauge">
    <p class="top">
      <span>
        <b class="ppm">{{ gauge.ppm === null ? 'not known' : short(gauge.ppm) }}</b>
        <template v-if="gauge.ppm !== null"> ppm going in</template>
      </span>
      <span class="verdict" :class="verdict.kind">
        <span aria-hidden="true">{{ verdict.kind === 'good' ? '✓' : '▲' }}</span> {{ verdict.word }}
      </span>
    </p>
    <svg
      :viewBox="`0 0 ${WIDTH} 74`"
      role="img"
      :aria-label="`${gauge.ppm ?? 'unknown'} of at most ${gauge.limit} ppm`"
    >
      <rect x="0" y="14" :width="WIDTH" height="28" fill="#E1E6E2" />
      <rect x="0" y="14" :width="at(gauge.ppm)" height="28" :fill="gauge.is_over ? '#B5304A' : '#6F8F8A'" />
      <rect
        v-if="gauge.low && gauge.high"
        :x="at(gauge.low)"
        y="7"
        :width="Math.max(2, at(gauge.high) - at(gauge.low))"
        height="42"
        fill="#1B1F1E"
        fill-opacity="0.22"
      />
      <line :x1="at(gauge.limit)" :x2="at(gauge.limit)" y1="0" y2="56" stroke="#1B1F1E" stroke-width="3" />
      <text :x="Math.min(at(gauge.limit), WIDTH - 4)" y="71" text-anchor="end">
        limit {{ gauge.limit }} ppm, {{ gauge.limit_name }}
      </text>
    </svg>
    <p v-if="gauge.low && gauge.high" class="small">
      {{ gauge.low }} to {{ gauge.high }} ppm: {{ gauge.error }}.
    </p>
    <p v-if="gauge.carried_ppm" class="small">
      {{ short(gauge.own ?? '0') }} ppm from this cure and {{ short(gauge.carried_ppm) }} ppm from an earlier
      one.
    </p>
    <dl v-if="gauge.pick_up && gauge.one_system" class="small">
      <div>
        <dt>by pick-up</dt>
        <dd>{{ short(gauge.pick_up) }} ppm</dd>
      </div>
      <div>
        <dt>as one system, once even</dt>
        <dd>{{ short(gauge.one_system) }} ppm</dd>
      </div>
    </dl>
    <p class="quiet small">
      {{ gauge.source }}.<template v-if="gauge.reference">
        The reference table has {{ gauge.reference }} ppm.</template
      >
    </p>
  </div>
</template>

<style scoped>
.gauge {
  display: grid;
  gap: 6px;
}

.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 2px 12px;
}

.ppm {
  font-size: 26px;
  font-weight: 780;
  font-stretch: 108%;
}

.verdict {
  font-weight: 680;
}

.verdict.care {
  color: var(--care-ink);
}

.verdict.good {
  color: var(--good);
}

.verdict.over {
  color: var(--rose-deep);
}

svg {
  width: 100%;
}

text {
  font-family: inherit;
  font-size: 15px;
  font-weight: 640;
}

dl {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
}

dl div {
  display: flex;
  gap: 6px;
}

dd {
  font-weight: 640;
}
</style>
