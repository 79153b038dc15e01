<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { asDate, hoursText, longDayText } from '@/shared/quantity/when'
import { rangeText } from './rangeText'
import WaysOut from './WaysOut.vue'
import type { Meal, MealDraft, MealIn } from './useMeals'

/**
 * What to buy by when, what a plate will cost, what does not fit and what can be done, and what to fetch.
 * `isUnderWay`: it is being made already, so nothing of it is to be bought or begun any more.
 */
const props = defineProps<{ plan: Meal; draft: MealDraft; isUnderWay?: boolean }>()
const emit = defineEmits<{ take: [input: MealIn] }>()
const { weightText, money, numberIn, unit } = useUnits()
type Buy = Schemas['BuyOut']
const percent = (one: string): string => `${Math.round(Number(one))} %`
const packs = (buy: Buy): string =>
  buy.packs === null ? '' : `${buy.packs} ${buy.packs === 1 ? 'pack' : 'packs'}, `
/** Offers at the case can be asked for what this batch lacks. */
const caseQuery = (buy: Buy): Record<string, string> => ({
  plan: props.draft.name || 'the plan',
  way: props.draft.makes[buy.make]?.way ?? '',
  sliced: `${Number(
    props.plan.needed
      .filter((one) => buy.products.includes(one.product))
      .reduce((sum, one) => sum + numberIn(one.short), 0)
      .toFixed(3),
  )} ${unit.value}`,
  sure: props.draft.sure,
  by: buy.by ?? '',
})
/** What to fetch, by where: the place where most is spent first. */
const sources = computed(() => {
  const found = new Map<string, { lines: Schemas['ShoppingOut'][]; cost: number }>()
  for (const line of props.plan.shopping) {
    const at = found.get(line.source) ?? { lines: [], cost: 0 }
    at.lines.push(line)
    at.cost += Number(line.cost ?? 0)
    found.set(line.source, at)
  }
  return [...found].map(([source, at]) => ({ source, ...at })).sort((a, b) => b.cost - a.cost)
})
const wrong = computed(() => [
  ...(props.plan.is_too_late ? [props.plan.later] : []),
  ...props.plan.clashes.map((one) => one.words),
])
const hereText = (line: Schemas['ShoppingOut']): string =>
  line.here ? `${line.needed}, ${line.here === 'not counted' ? 'not counted here' : `${line.here} here`}` : ''
</script>

<template>
  <template v-if="!isUnderWay">
    <section v-for="buy in plan.buys" :key="buy.make" class="panel lines" aria-label="What to buy">
      <p class="quiet">
        {{ plan.buys.length > 1 ? `${buy.products.join(' and ')}: ` : ''
        }}{{ buy.by ? `buy by ${longDayText(asDate(buy.by))}` : 'too late to be bought for that day' }}
      </p>
      <p class="heavy">{{ packs(buy) }}{{ weightText(buy.buy) }}</p>
      <p>
        {{ buy.meat }}:
        {{ buy.cost === null ? 'its price is not known yet.' : `${money(buy.cost)} of meat.` }} About
        <b>{{ weightText(buy.over) }}</b> stay over for the larder{{
          buy.over_plates ? `: ${buy.over_plates}` : ''
        }}.
      </p>
      <p v-if="buy.by">
        <RouterLink :to="{ name: 'buy', query: caseQuery(buy) }">Check offers at the case for it</RouterLink>
      </p>
    </section>
    <section
      v-if="!plan.buys.length && plan.needed.length && !plan.problems.length"
      class="panel lines"
      aria-label="What to buy"
    >
      <p class="heavy">Nothing to buy</p>
      <p>There will be enough of it on that day.</p>
    </section>
    <WaysOut
      v-if="plan.is_too_late || plan.clashes.length"
      :said="wrong"
      :ways="plan.ways_out"
      none="Nothing of what can be tried here makes it fit: fewer plates, another day, or another place."
      @take="(input) => emit('take', input)"
    />
    <section v-else-if="plan.jobs.length" class="panel good" aria-label="Does it fit">✓ It fits.</section>
  </template>
  <section v-if="plan.plates.length" class="panel lines" aria-label="What it will cost">
    <template v-for="one in plan.plates" :key="one.dish">
      <h2>{{ one.dish }}</h2>
      <p class="pair">
        <span>A plate will cost</span><b>{{ rangeText(one.low, one.high, money) }}</b>
      </p>
      <p v-if="one.food_low !== null" class="pair">
        <span>Food cost</span><b>{{ rangeText(one.food_low, one.food_high, percent) }}</b>
      </p>
      <p v-if="one.leave_low !== null" class="pair">
        <span>Left over from {{ one.plates }} plates</span
        ><b>{{ rangeText(one.leave_low, one.leave_high, money) }}</b>
      </p>
    </template>
    <p v-if="plan.work_minutes" class="pair">
      <span>Work in all</span><b>{{ hoursText(plan.work_minutes * 60) }}</b>
    </p>
    <p v-if="plan.cost !== null" class="pair">
      <span>Meat, cure, fuel and work</span><b>{{ money(plan.cost) }}</b>
    </p>
  </section>
  <section v-if="sources.length" class="panel lines" aria-label="Shopping list">
    <h2>Shopping list</h2>
    <template v-for="one in sources" :key="one.source">
      <p class="pair source">
        <b>{{ one.source || (sources.length > 1 ? 'Elsewhere' : 'Anywhere') }}</b><span
          v-if="one.cost"
          class="quiet"
          >{{ money(one.cost.toFixed(2)) }}</span
        >
      </p>
      <p v-for="line in one.lines" :key="line.what" class="pair">
        <span
          >{{ line.what }} <span class="quiet small">{{ hereText(line) }}</span></span
        >
        <b :class="{ ok: !line.buy }">{{ line.buy || '✓' }}</b>
      </p>
    </template>
  </section>
  <p v-for="one in plan.missing" :key="one" class="panel care">{{ one }}</p>
</template>

<style scoped>
.heavy {
  font-size: 34px;
  font-weight: 780;
  font-stretch: 112%;
  line-height: 1.1;
  color: var(--rose-deep);
}

.quiet::first-letter {
  text-transform: uppercase;
}

.pair {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}

.pair b {
  white-space: nowrap;
}

.source {
  margin-top: 6px;
  border-bottom: 1px solid var(--edge);
}

.care {
  color: var(--care-ink);
}

.ok,
.good {
  color: var(--good);
}
</style>
