<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import type { Verdict } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** What left the till beside what the batch is charged: a jar is paid once and charged by the gram. */
defineProps<{ verdict: Verdict }>()
const { money } = useUnits()
</script>

<template>
  <section class="panel" aria-label="Paid and used">
    <h2>Paid and used</h2>
    <LedgerTable>
      <thead>
        <tr>
          <th scope="col">paid for</th>
          <th scope="col">paid</th>
          <th scope="col">used here</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in verdict.outlay" :key="line.what">
          <th scope="row">
            {{ line.what
            }}<span v-if="line.packs" class="quiet small packs">
              {{ line.packs === 1 ? 'one pack' : `${line.packs} packs` }}</span
            >
          </th>
          <td>{{ money(line.paid) }}</td>
          <td>{{ money(line.charged) }}</td>
        </tr>
        <tr class="all">
          <th scope="row">all</th>
          <td>{{ money(verdict.outlay_paid) }}</td>
          <td>{{ money(verdict.outlay_charged) }}</td>
        </tr>
      </tbody>
    </LedgerTable>
  </section>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}

.packs {
  margin-left: 6px;
}

th,
td {
  text-align: right;
  font-weight: 450;
  padding: 2px 0 2px 8px;
  vertical-align: top;
}

thead th {
  font-size: 13px;
  color: var(--quiet);
}

th:first-child {
  text-align: left;
  padding-left: 0;
}

td {
  font-weight: 600;
}

.all th,
.all td {
  border-top: 1px solid var(--ink);
  font-weight: 700;
}
</style>
