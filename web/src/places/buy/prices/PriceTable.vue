<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { computed } from 'vue'
import { dayText } from '@/shared/quantity/when'
import SparkLine from './SparkLine.vue'
import { type Item, type Sort, sortWords, usePer } from './usePrices'

/** Lines of the price list: latest, usual and lowest price, and a small line of the history. */
const props = defineProps<{ items: Item[]; sort: Sort }>()
const { perText, otherText } = usePer()
/** "11 slices, up to 10 % water" */
const aboutText = (item: Item): string =>
  [item.slices ? `${item.slices} slices` : '', item.solution ? `up to ${Number(item.solution)} % water` : '']
    .filter(Boolean)
    .join(', ')
const isShop = computed(() => props.sort === 'shop_pack')
const { percent } = useUnits()
</script>

<template>
  <LedgerTable>
    <caption class="unseen">
      {{
        sortWords[sort]
      }}
    </caption>
    <thead>
      <tr>
        <th scope="col">What</th>
        <th scope="col" class="right">Latest</th>
        <th scope="col">Seen</th>
        <th scope="col" class="right">Usual</th>
        <th scope="col" class="right">Lowest</th>
        <th v-if="isShop" scope="col">Frying</th>
        <th scope="col">History</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="item in items" :key="item.id">
        <th scope="row">
          <RouterLink :to="{ name: 'price', params: { id: item.id } }">{{ item.name }}</RouterLink>
          <span v-if="item.kind && item.kind !== item.name" class="badge">{{ item.kind }}</span>
          <span v-if="item.slices || item.solution" class="sub">
            {{ aboutText(item) }}
          </span>
        </th>
        <td class="right">
          <b>{{ perText(item.latest) }}</b><span class="sub">{{ otherText(item.latest) }}</span>
        </td>
        <td>
          {{ item.source }}<span class="sub">{{ dayText(item.latest_on) }}, {{ item.latest_typed }}</span>
        </td>
        <td class="right">{{ perText(item.usual) }}</td>
        <td class="right">
          {{ perText(item.lowest) }}<span class="sub">{{ dayText(item.lowest_on) }}</span>
        </td>
        <td v-if="isShop">
          <template v-if="item.fry?.mean"
            >{{ percent(item.fry.mean) }} left<span class="sub"
              ><template v-if="item.fry.spread">± {{ item.fry.spread }}, </template>{{ item.fry.tests }}
              {{ item.fry.tests === 1 ? 'test' : 'tests' }}</span
            ></template
          ><span v-else class="quiet">not yet</span>
        </td>
        <td class="line">
          <SparkLine v-if="item.history.length > 1" :history="item.history" />
          <span v-else class="quiet small">seen once</span>
        </td>
      </tr>
    </tbody>
  </LedgerTable>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}

thead th {
  font-size: 13px;
  font-weight: 500;
  font-stretch: 88%;
  color: var(--quiet);
  padding-top: 10px;
}

th,
td {
  text-align: left;
  padding: 8px 14px 8px 0;
  vertical-align: top;
  border-bottom: 1px solid #e4e8e6;
}

tbody tr:last-child > * {
  border-bottom: 0;
}

tbody th {
  font-weight: 680;
  font-size: 16px;
}

.badge {
  margin-left: 8px;
  font-size: 12px;
  padding: 1px 8px;
}

.sub {
  display: block;
  font-size: 13px;
  font-weight: 450;
  font-stretch: 90%;
  color: var(--quiet);
}

.right {
  text-align: right;
  white-space: nowrap;
}

@media (max-width: 719px) {
  table,
  tbody,
  tr {
    display: block;
  }

  thead {
    display: none;
  }

  tr {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 12px;
    padding: 10px 0;
    border-bottom: 1px solid #e4e8e6;
  }

  th,
  td {
    border: 0;
    padding: 0;
  }

  td:nth-child(4)::before {
    content: 'usual ';
    color: var(--quiet);
  }

  td:nth-child(5) {
    display: none;
  }
}
</style>
