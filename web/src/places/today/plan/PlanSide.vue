<script setup lang="ts">
import { computed } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { asDate, hoursText, longDayText } from '@/shared/quantity/when'
import type { Meal, MealIn } from './useMeals'

/** What to buy by when, what a plate will cost, what does not fit and what can be done, and what to fetch. */
const props = defineProps<{ plan: Meal }>()
const emit = defineEmits<{ take: [input: MealIn] }>()
const { weightText, money } = useUnits()
const buy = computed(() => props.plan.buy)
const by = computed(() => (buy.value ? longDayText(asDate(buy.value.by)) : ''))
const range = (low: string | null, high: string | null, show: (one: string) => string): string =>
  low === null || high === null ? 'not known' : low === high ? show(low) : `${show(low)} to ${show(high)}`
const percent = (one: string): string => `${Math.round(Number(one))} %`
</script>

<template>
  <section v-if="buy" class="panel lines" aria-label="What to buy">
    <p class="quiet">{{ buy.is_too_late ? `Had to be bought by ${by}` : `Buy by ${by}` }}</p>
    <p class="heavy">
      {{ buy.packs === null ? '' : `${buy.packs} ${buy.packs === 1 ? 'pack' : 'packs'}, `
      }}{{ weightText(buy.buy) }}
    </p>
    <p>
      {{ buy.cost === null ? 'Its price is not known yet.' : `${money(buy.cost)} of meat.` }} About
      <b>{{ weightText(buy.over) }}</b> stay over for the larder{{
        buy.over_plates ? `: ${buy.over_plates}` : ''
      }}.
    </p>
    <p v-if="buy.is_too_late" class="care">▲ {{ plan.later }}</p>
  </section>
  <section
    v-else-if="plan.needed.length && !plan.problems.length"
    class="panel lines"
    aria-label="What to buy"
  >
    <p class="heavy">Nothing to buy</p>
    <p>The larder will have enough of it on that day.</p>
  </section>
  <section v-if="plan.clashes.length" class="panel clash" aria-label="Does it fit" role="alert">
    <p v-for="one in plan.clashes" :key="one.words">▲ {{ one.words }}</p>
    <template v-if="plan.ways_out.length">
      <p><b>What can be done</b></p>
      <button
        v-for="way in plan.ways_out"
        :key="way.words"
        type="button"
        class="act small"
        @click="emit('take', way.input)"
      >
        {{ way.words
        }}<span v-if="way.price" class="quiet">{{
          Number(way.price) ? `, ${money(way.price)} more` : ', costs nothing'
        }}</span>
      </button>
    </template>
    <p v-else>Nothing of what can be tried here makes it fit: fewer plates, another day, or another place.</p>
  </section>
  <section v-else-if="plan.jobs.length" class="panel good" aria-label="Does it fit">✓ It fits.</section>
  <section v-if="plan.plates.length" class="panel lines" aria-label="What it will cost">
    <template v-for="one in plan.plates" :key="one.dish">
      <h2>{{ one.dish }}</h2>
      <p class="pair">
        <span>A plate will cost</span><b>{{ range(one.low, one.high, money) }}</b>
      </p>
      <p v-if="one.food_low !== null" class="pair">
        <span>Food cost</span><b>{{ range(one.food_low, one.food_high, percent) }}</b>
      </p>
      <p v-if="one.leave_low !== null" class="pair">
        <span>{{ one.plates }} leave</span><b>{{ range(one.leave_low, one.leave_high, money) }}</b>
      </p>
    </template>
    <p v-if="plan.work_minutes" class="pair">
      <span>Work in all</span><b>{{ hoursText(plan.work_minutes * 60) }}</b>
    </p>
    <p v-if="plan.cost !== null" class="pair">
      <span>Meat, cure, fuel and work</span><b>{{ money(plan.cost) }}</b>
    </p>
  </section>
  <section v-if="plan.shopping.length" class="panel lines" aria-label="Fetch too">
    <h2>Fetch too</h2>
    <p v-for="one in plan.shopping" :key="one.what" class="pair">
      <span
        >{{ one.what }}
        <span class="quiet small">{{
          one.here
            ? `${one.needed}, ${one.here === 'not counted' ? 'not counted here' : `${one.here} here`}`
            : ''
        }}</span></span
      >
      <b :class="{ ok: !one.buy }">{{ one.buy || '✓' }}</b>
    </p>
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

.pair {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}

.clash {
  display: grid;
  gap: 8px;
  border-left: 6px solid var(--care);
  background: var(--care-ground);
}

.clash .act {
  height: auto;
  padding: 8px 12px;
  text-align: left;
  white-space: normal;
}

.care {
  color: var(--care-ink);
}

.ok,
.good {
  color: var(--good);
}
</style>
