<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import type { Live } from '@/places/fire/useFires'

/** What taking it hotter leaves and costs. */
defineProps<{ live: Live }>()
const { like, weightText, money, percent, figure } = useUnits()
</script>

<template>
  <section class="panel" aria-label="Pull now or wait">
    <div class="top">
      <h2>Pull now or wait</h2>
      <span class="quiet small">expected, a sliced {{ like('pound', 'kilogram') }}</span>
    </div>
    <LedgerTable>
      <thead>
        <tr>
          <th scope="col">Inside</th>
          <th scope="col">Kept</th>
          <th scope="col">Weighs</th>
          <th scope="col">Price</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in live.pulls" :key="one.inside" :class="{ plan: one.is_plan }">
          <th scope="row">{{ figure(one.inside) }} °{{ live.unit }}{{ one.is_plan ? ', the plan' : '' }}</th>
          <td>
            {{ percent(one.kept) }}
            <span class="quiet small">{{ figure(one.low) }} to {{ figure(one.high) }}</span>
          </td>
          <td>{{ weightText(one.weight) }}</td>
          <td>
            <b>{{ one.price ? money(like(one.price.per_lb, one.price.per_kg)) : '–' }}</b>
          </td>
        </tr>
      </tbody>
    </LedgerTable>
    <p class="quiet small">{{ live.pulls_source }}. Chilled and sliced as usual here.</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  align-content: start;
}

.top {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 10px;
}

table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}

th,
td {
  text-align: right;
  padding: 3px 0 3px 10px;
  font-weight: 500;
}

th:first-child {
  text-align: left;
  padding-left: 0;
}

thead th {
  color: var(--quiet);
  font-size: 13px;
}

.plan th,
.plan td {
  border-block: 2px solid var(--ink);
  font-weight: 700;
}
</style>
