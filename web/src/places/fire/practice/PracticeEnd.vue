<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import { computed } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { hoursText } from '@/shared/quantity/when'
import type { PracticeVerdict } from './usePractice'

/** How a practice run ended: what it cost beside the best, what was caught and when, what to watch next time. */
const props = defineProps<{ verdict: PracticeVerdict; unit: string }>()
const { figure, weightText, money, costText, unitWord } = useUnits()
const missed = computed(() => props.verdict.caught.filter((one) => !one.is_caught))
const isGood = computed(() => props.verdict.is_cooked && !missed.value.length)
const judged = new Set(['pull', 'late', 'raw'])
/** When it was caught, and what to watch next time where it was not. */
function more(one: PracticeVerdict['caught'][number]): string {
  const after = one.after_seconds
  const when =
    after === null ? 'Not caught.' : after < 60 ? 'Caught at once.' : `Caught after ${hoursText(after)}.`
  const words = [judged.has(one.kind) ? '' : when, one.is_caught ? '' : `Next time: ${one.next_time}`]
  return words.map((word) => (word ? ` ${word}` : '')).join('')
}
</script>

<template>
  <section class="panel end" aria-label="How it went">
    <h2>{{ isGood ? 'Well cooked' : 'How it went' }}</h2>
    <p class="heavy" :class="verdict.lost ? 'dear' : 'good'">
      {{ verdict.lost ? `${weightText(verdict.lost)} and ${money(verdict.money)} lost` : 'Nothing lost' }}
    </p>
    <LedgerTable>
      <thead>
        <tr>
          <td></td>
          <th scope="col">Yours</th>
          <th scope="col">The best</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">Out of the fire after</th>
          <td>{{ hoursText(verdict.out_seconds) }}</td>
          <td>{{ hoursText(verdict.best_seconds) }}</td>
        </tr>
        <tr>
          <th scope="row">Weighs then</th>
          <td>{{ weightText(verdict.weight) }}</td>
          <td>{{ weightText(verdict.best_weight) }}</td>
        </tr>
        <tr v-if="verdict.price && verdict.best_price">
          <th scope="row">Served, a {{ unitWord }}</th>
          <td>{{ costText(verdict.price) }}</td>
          <td>{{ costText(verdict.best_price) }}</td>
        </tr>
      </tbody>
    </LedgerTable>
    <p>
      At most {{ figure(verdict.peak) }} °{{ unit }} in the middle,
      {{ verdict.is_cooked ? 'cooked through' : 'not cooked through'
      }}<template v-if="verdict.late_seconds">, {{ hoursText(verdict.late_seconds) }} after the meal</template
      >.
    </p>
    <ul class="caught" aria-label="What was caught">
      <li v-for="one in verdict.caught" :key="one.kind" :class="{ missed: !one.is_caught }">
        <b>{{ one.text }}</b>{{ more(one) }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.end {
  display: grid;
  gap: 8px;
  margin-bottom: 16px;
}

.heavy {
  font-size: 30px;
  font-weight: 800;
}

table {
  justify-self: start;
  border-collapse: collapse;
}

th,
td {
  padding: 2px 18px 2px 0;
  text-align: left;
}

.caught {
  display: grid;
  gap: 6px;
}

.caught li {
  padding-left: 12px;
  border-left: 4px solid #3f7d4e;
}

.caught li.missed {
  border-left-color: var(--rose-deep);
}
</style>
