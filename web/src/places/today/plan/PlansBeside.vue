<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import { computed, toRef } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { asDate, hoursText, longDayText, weekMomentText } from '@/shared/quantity/when'
import { rangeText } from './rangeText'
import { type MealPage, useMealPages } from './useMeals'

/** Plans side by side: what to buy, when to begin, whether it fits, what it costs. */
const props = defineProps<{ names: string[] }>()
const pages = useMealPages(toRef(props, 'names'))
const { weightText, money } = useUnits()
const columns = computed(() => pages.value.filter((page): page is MealPage => page !== undefined))
const plates = (page: MealPage): string =>
  page.plan.plates.map((one) => `${one.dish}: ${rangeText(one.low, one.high, money)}`).join(' · ') || '–'
function fits({ plan, on_time, is_under_way, is_late }: MealPage): string {
  if (is_under_way) return `${is_late ? '▲' : '✓'} ${on_time}`
  if (plan.is_too_late) return '▲ too late to begin'
  if (plan.clashes.length) return `▲ ${plan.clashes.map((one) => one.words).join(' ')}`
  return plan.jobs.length ? '✓ it fits' : '✓ nothing to make'
}
const rows = computed(() => [
  { name: 'Meal', of: (page: MealPage) => weekMomentText(page.plan.meal_at) },
  {
    name: 'Buy',
    of: ({ plan }: MealPage) =>
      plan.buys
        .map(
          (buy) =>
            `${weightText(buy.buy)} of ${buy.meat}${buy.by ? ` by ${longDayText(asDate(buy.by))}` : ', too late'}`,
        )
        .join(' · ') || 'nothing',
  },
  {
    name: 'Latest start',
    of: ({ plan }: MealPage) => (plan.latest_start ? weekMomentText(plan.latest_start) : '–'),
  },
  { name: 'Does it fit', of: fits },
  { name: 'A plate', of: plates },
  {
    name: 'Work',
    of: ({ plan }: MealPage) => (plan.work_minutes ? hoursText(plan.work_minutes * 60) : '–'),
  },
  { name: 'In all', of: ({ plan }: MealPage) => (plan.cost === null ? '–' : money(plan.cost)) },
])
</script>

<template>
  <div class="panel beside" role="region" aria-label="Plans side by side" tabindex="0">
    <LedgerTable>
      <thead>
        <tr>
          <td></td>
          <th v-for="page in columns" :key="page.name" scope="col">{{ page.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.name">
          <th scope="row">{{ row.name }}</th>
          <td v-for="page in columns" :key="page.name">{{ row.of(page) }}</td>
        </tr>
      </tbody>
    </LedgerTable>
  </div>
</template>

<style scoped>
.beside {
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  padding: 8px 14px 8px 0;
  min-width: 130px;
  text-align: left;
  vertical-align: top;
}

tbody tr {
  border-top: 1px solid var(--edge);
}

th[scope='row'] {
  min-width: 90px;
  color: var(--quiet);
  font-weight: 500;
}
</style>
