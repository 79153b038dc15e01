<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** How much raw meat is needed, with its odds: even, and as much as is bought. */
const props = defineProps<{ buy: Schemas['BuyOut']; wanted: string; of?: string }>()
const { weightText } = useUnits()
const isNarrow = useMediaQuery('(max-width: 620px)')
const [TOP, LOW] = [26, 120] as const
const WIDE = computed(() => (isNarrow.value ? 400 : 780))
const odds = computed(() => props.buy.odds)
const x = computed(() => {
  const least = odds.value[0]?.grams ?? 0
  const most = Math.max(odds.value.at(-1)?.grams ?? 1, props.buy.sure_grams * 1.02)
  return scaleLinear([least, most], [30, WIDE.value - 30])
})
const ends = computed(() => ({ least: odds.value[0]?.grams ?? 0, most: odds.value.at(-1)?.grams ?? 0 }))
const y = scaleLinear([0, 1], [LOW, TOP + 14])
const edge = computed(
  () =>
    line<Schemas['OddsOut']>(
      (one) => x.value(one.grams),
      (one) => y(one.part),
    )(odds.value) ?? '',
)
const fill = computed(
  () =>
    area<Schemas['OddsOut']>(
      (one) => x.value(one.grams),
      LOW,
      (one) => y(one.part),
    )(odds.value) ?? '',
)
const chance = computed(() => {
  const part = Number(props.buy.chance)
  return part >= 99.5 ? 'over 99' : String(Math.floor(part))
})
/** Where the odds are narrow the ends stand too near the middle to be named. */
const ROOM = 110
const isNamed = computed(
  () =>
    x.value(props.buy.even_grams) - x.value(ends.value.least) > ROOM &&
    x.value(ends.value.most) - x.value(props.buy.even_grams) > ROOM,
)
/** The middle's words stay inside the drawing. */
const evenAt = computed(() => Math.max(90, x.value(props.buy.even_grams)))
const isRight = computed(() => x.value(props.buy.sure_grams) > WIDE.value * 0.55)
</script>

<template>
  <section class="panel" aria-label="How much to buy">
    <h2>How much to buy{{ of ? `: ${of}` : '' }}</h2>
    <svg
      :viewBox="`0 0 ${WIDE} 150`"
      role="img"
      :aria-label="`${weightText(buy.even)} is enough every other time, ${weightText(buy.buy)} ${chance} times of 100`"
    >
      <path :d="fill" fill="#FBE4E8" />
      <path :d="edge" fill="none" stroke="#D9657A" stroke-width="2.5" />
      <line x1="30" :x2="WIDE - 30" :y1="LOW" :y2="LOW" stroke="#CBD2CE" />
      <line
        :x1="x(buy.even_grams)"
        :x2="x(buy.even_grams)"
        :y1="TOP + 14"
        :y2="LOW"
        stroke="#B5304A"
        stroke-width="1.5"
        stroke-dasharray="5 4"
      />
      <text :x="evenAt" :y="LOW + 20" text-anchor="middle">{{ weightText(buy.even) }}, even odds</text>
      <line
        :x1="x(buy.sure_grams)"
        :x2="x(buy.sure_grams)"
        :y1="TOP - 12"
        :y2="LOW"
        stroke="#B5304A"
        stroke-width="3"
      />
      <text
        :x="x(buy.sure_grams) + (isRight ? -8 : 8)"
        :y="TOP - 4"
        :text-anchor="isRight ? 'end' : 'start'"
        class="bought"
      >
        buy {{ weightText(buy.buy) }}: enough {{ chance }} times of 100
      </text>
      <template v-if="isNamed">
        <text :x="x(ends.least)" :y="LOW + 20">{{ weightText(buy.least) }}</text>
        <text :x="x(ends.most)" :y="LOW + 20" text-anchor="end">
          {{ weightText(buy.most) }}
        </text>
      </template>
    </svg>
    <p class="quiet small">{{ wanted }}</p>
  </section>
</template>

<style scoped>
text {
  font-size: 14px;
  font-stretch: 90%;
  fill: var(--quiet);
}

.bought {
  fill: #8f1d38;
  font-weight: 700;
}
</style>
