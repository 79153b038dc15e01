<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import { computed } from 'vue'
import { useLarder } from '@/shared/api/useLarder'
import { useUnits } from '@/shared/quantity/useUnits'

/** Shrink after packing: how much of each product spoiled, was thrown away, or ran out in the bag. */
const { data: larder } = useLarder()
const { weightText, money } = useUnits()
const rows = computed(() => larder.value?.lost ?? [])
</script>

<template>
  <section v-if="rows.length" class="panel" aria-label="Lost after packing" tabindex="0">
    <h2>Lost after packing</h2>
    <LedgerTable>
      <thead>
        <tr>
          <th scope="col">Product</th>
          <th scope="col">Packed</th>
          <th scope="col">Spoiled or thrown away</th>
          <th scope="col">It cost</th>
          <th scope="col">%</th>
          <th scope="col">Ran out in the bag or dried away</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in rows" :key="one.product">
          <th scope="row">{{ one.product }}</th>
          <td>{{ weightText(one.packed) }}</td>
          <td>{{ weightText(one.lost) }}</td>
          <td>{{ money(one.cost) }}</td>
          <td>
            <b>{{ one.percent }}</b>
          </td>
          <td>
            {{ one.purge === null ? 'not weighed' : `${one.purge} % of ${one.weighed} weighed` }}
          </td>
        </tr>
      </tbody>
    </LedgerTable>
  </section>
</template>

<style scoped>
section {
  margin-top: 16px;
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  padding: 6px 8px;
  text-align: right;
  border-bottom: 1px solid var(--edge);
}

th:first-child {
  text-align: left;
}
</style>
