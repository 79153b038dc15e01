<script setup lang="ts">
import { computed } from 'vue'
import type { Judged } from '@/shared/api/client'
import { capital } from '@/shared/quantity/capital'
import { chanceText } from '@/shared/quantity/chance'
import { useUnits, without } from '@/shared/quantity/useUnits'
import { scaleFor, spreadLabels } from '@/shared/scales/priceScale'

/** One upright scale of prices: the shop's kinds at their heights, the house with its range, the gap in words. */
const props = defineProps<{
  /** What the records say on this basis. */
  basis: Judged['bases'][number]
  /** The same with what is being tried; null where nothing is. */
  tried: Judged['bases'][number] | null
  code: string
  /** The house's price is what the forecast expects, with its range. */
  isForecast: boolean
}>()
const { money } = useUnits()

const [WIDE, HIGH, TOP, BOTTOM, AXIS] = [440, 560, 26, 534, 108]
const house = computed(() => (props.basis.price === null ? null : Number(props.basis.price)))
const other = computed(() => (props.tried?.price == null ? null : Number(props.tried.price)))
/** The shop's prices move too where they are being tried. */
const rungs = computed(() =>
  (props.tried ?? props.basis).shops
    .filter((one) => one.price !== null)
    .map((one) => ({ ...one, height: Number(one.price) })),
)
const range = computed(() => [Number(props.basis.low ?? 0), Number(props.basis.high ?? 0)] as const)
const scale = computed(() => {
  const prices = [house.value, other.value, ...rungs.value.map((one) => one.height)]
  const known = prices.filter((one): one is number => one !== null)
  return scaleFor(
    known.length ? [...known, ...(house.value === null ? [] : range.value)] : [0, 1],
    TOP,
    BOTTOM,
  )
})
const at = (price: number): number => scale.value.at(price)
const labels = computed(() => {
  const wanted = rungs.value.map((one) => at(one.height))
  const own = house.value === null ? [] : [at(house.value)]
  const trial = other.value === null ? [] : [at(other.value)]
  return spreadLabels([...wanted, ...own, ...trial], 40, TOP + 8, BOTTOM - 8)
})
const houseLabel = computed(() => labels.value[rungs.value.length] ?? 0)
const triedLabel = computed(() => labels.value[rungs.value.length + 1] ?? 0)
const decimals = computed(() => (scale.value.high < 10 ? 2 : 0))

/** House beside the first of the shop's kinds, as it stands or as it is tried. */
const gap = computed(() => {
  const first = (props.tried ?? props.basis).shops[0]
  if (!first?.saved || first.price === null) return null
  const under = !first.saved.startsWith('-')
  const words = `${money(without(first.saved))} ${under ? 'under' : 'over'}`
  return { words, under, from: Number(first.price), apart: first.apart, chance: first.chance ?? null }
})
const tone = computed(() => {
  if (!gap.value) return ''
  if (props.isForecast && !gap.value.apart) return 'open'
  return gap.value.under ? 'good' : 'dear'
})
const stands = computed(() => other.value ?? house.value)
</script>

<template>
  <section class="panel" aria-label="Ladder of prices">
    <h2>{{ capital(basis.label) }}</h2>
    <p v-if="basis.missing" class="quiet">The house has no price on this basis yet. {{ basis.missing }}</p>
    <p v-if="isForecast && house !== null" class="care">Forecast: this batch is not finished yet.</p>
    <svg v-if="rungs.length || house !== null" :viewBox="`0 0 ${WIDE} ${HIGH}`" aria-hidden="true">
      <line :x1="AXIS" :x2="AXIS" :y1="TOP - 14" :y2="BOTTOM + 10" stroke="#1B1F1E" stroke-width="2" />
      <g v-for="tick in scale.ticks" :key="tick">
        <line :x1="AXIS" :x2="AXIS + 12" :y1="at(tick)" :y2="at(tick)" stroke="#8B9692" />
        <text :x="AXIS - 10" :y="at(tick) + 4" class="tick">{{ money(tick.toFixed(decimals)) }}</text>
      </g>
      <g v-for="(rung, index) in rungs" :key="`${index} ${rung.name}`">
        <path
          :d="`M${AXIS} ${at(rung.height)}H${AXIS + 120}L${AXIS + 134} ${labels[index]}H${WIDE}`"
          class="level"
        />
        <text :x="AXIS + 140" :y="(labels[index] ?? 0) - 7" class="name halo">{{ rung.name }}</text>
        <text :x="AXIS + 140" :y="(labels[index] ?? 0) + 15" class="under halo">{{ money(rung.price) }}</text>
      </g>
      <template v-if="house !== null">
        <rect
          v-if="range[0] < range[1]"
          :x="AXIS + 16"
          :width="66"
          :y="at(range[1])"
          :height="Math.max(at(range[0]) - at(range[1]), 2)"
          fill="#EFD0D6"
        />
        <line
          :x1="AXIS + 10"
          :x2="AXIS + 88"
          :y1="at(house)"
          :y2="at(house)"
          stroke="#B5304A"
          stroke-width="6"
        />
        <path
          :d="`M${AXIS + 88} ${at(house)}L${AXIS + 104} ${houseLabel}`"
          stroke="#B5304A"
          stroke-width="1.5"
        />
        <text :x="AXIS + 108" :y="houseLabel + 10" class="house halo">
          {{ money(basis.price) }}
          <tspan class="code" dx="8">{{ isForecast ? 'expected' : `house, ${code}` }}</tspan>
        </text>
      </template>
      <template v-if="other !== null">
        <path :d="`M${AXIS - 15} ${at(other) - 8}L${AXIS - 1} ${at(other)}L${AXIS - 15} ${at(other) + 8}Z`" />
        <line
          :x1="AXIS + 10"
          :x2="AXIS + 88"
          :y1="at(other)"
          :y2="at(other)"
          stroke="#1B1F1E"
          stroke-width="3"
        />
        <path :d="`M${AXIS + 88} ${at(other)}L${AXIS + 104} ${triedLabel}`" stroke="#1B1F1E" />
        <text :x="AXIS + 108" :y="triedLabel + 5" class="tried halo">
          {{ money(tried?.price) }}
          <tspan class="say" dx="5">with your changes</tspan>
        </text>
      </template>
      <g v-if="gap && stands !== null">
        <line
          :x1="AXIS - 62"
          :x2="AXIS - 62"
          :y1="at(gap.from)"
          :y2="at(stands)"
          :stroke="gap.under ? '#1A6B50' : '#8E1F38'"
          stroke-width="3"
        />
        <text
          :x="AXIS - 70"
          :y="(at(gap.from) + at(stands)) / 2"
          class="gap"
          :style="{ fill: gap.under ? '#1A6B50' : '#8E1F38' }"
          :transform="`rotate(-90 ${AXIS - 70} ${(at(gap.from) + at(stands)) / 2})`"
        >
          {{ gap.words }}
        </text>
      </g>
    </svg>
    <p v-if="gap" class="verdict" :class="tone" aria-live="polite">
      {{ isForecast ? 'Expected ' : '' }}{{ gap.words }} the {{ basis.shops[0]?.name }}
    </p>
    <p v-if="gap && isForecast" class="quiet small">
      {{ money(basis.low) }} to {{ money(basis.high) }}, 8 times out of 10<template
        v-if="gap.chance !== null && tried === null"
        >; {{ chanceText(gap.chance, `the ${basis.shops[0]?.name}`) }}</template
      >.
    </p>
    <p v-else-if="gap && !gap.apart" class="care">
      The scale is not fine enough to tell house and shop apart here.
    </p>
    <p v-else-if="range[0] < range[1]" class="quiet small">
      {{ money(basis.low) }} to {{ money(basis.high) }} from scale error alone, 19 times out of 20.
    </p>
    <ul class="unseen">
      <li v-for="rung in rungs" :key="rung.name">{{ rung.name }} {{ money(rung.price) }}</li>
      <li v-if="basis.price">house {{ money(basis.price) }}</li>
      <li v-if="tried?.price">with your changes {{ money(tried.price) }}</li>
    </ul>
    <p v-if="!basis.shops.length">
      No shop pack is set yet.
      <RouterLink :to="{ name: 'log', params: { code } }">Set one on the bench</RouterLink>.
    </p>
  </section>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: auto;
}

svg text {
  font-family: inherit;
  fill: var(--ink);
}

.tick {
  font-size: 13px;
  text-anchor: end;
  fill: var(--quiet);
}

.level {
  fill: none;
  stroke: #1b1f1e;
  stroke-width: 1.4;
  stroke-dasharray: 7 5;
}

.name {
  font-size: 15px;
  font-weight: 680;
}

.under {
  font-size: 13px;
  fill: var(--quiet);
}

svg .house {
  font-size: 33px;
  font-weight: 800;
  font-stretch: 106%;
  fill: var(--rose-deep);
}

.code {
  font-size: 15px;
  font-weight: 680;
  font-stretch: 100%;
}

.tried {
  font-size: 17px;
  font-weight: 760;
}

.say {
  font-size: 14px;
  font-weight: 500;
}

svg .gap {
  font-size: 15px;
  font-weight: 700;
  text-anchor: middle;
}

.verdict {
  font-size: 20px;
  font-weight: 760;
}

.care {
  border-left: 4px solid var(--care);
  padding-left: 8px;
  color: var(--care-ink);
}
</style>
