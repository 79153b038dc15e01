<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { capital } from '@/shared/quantity/capital'

/** What each step keeps of each cut: the range as a band, the start value as a tick, and what it is based on. */
const props = defineProps<{ yields: Schemas['YieldsOut'] }>()
const WIDE = 300
const low = computed(() => Math.min(70, ...props.yields.yields.map((one) => Number(one.low))) - 2)
const high = computed(() => Math.max(100, ...props.yields.yields.map((one) => Number(one.high))) + 1)
const at = (percent: string): number => ((Number(percent) - low.value) / (high.value - low.value)) * WIDE
const cutText = (key: string): string => key.replace('skin-', 'skin ').replace('bone-', 'bone ')
</script>

<template>
  <section class="panel" aria-label="Yields by step">
    <h2>What each step keeps</h2>
    <p class="quiet">
      Percent of the weight going in; 8 times out of 10 inside the band. The tick is the start value.
      <template v-if="!yields.yields.length">
        No batch is finished yet: each step uses its start value.
      </template>
    </p>
    <table v-if="yields.yields.length">
      <thead>
        <tr>
          <th scope="col">Step</th>
          <th scope="col">Cut</th>
          <th scope="col" class="right">Kept</th>
          <th scope="col">Range</th>
          <th scope="col">Based on</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in yields.yields" :key="`${one.method} ${one.cut}`">
          <th scope="row">{{ capital(one.method.replaceAll('_', ' ')) }}</th>
          <td>{{ cutText(one.cut) }}</td>
          <td class="right">
            <b>{{ one.kept }} %</b>
          </td>
          <td>
            <svg :viewBox="`0 0 ${WIDE} 22`" role="img" :aria-label="`${one.low} to ${one.high} percent`">
              <rect
                :x="at(one.low)"
                y="4"
                :width="Math.max(at(one.high) - at(one.low), 2)"
                height="14"
                fill="#EFC9D0"
              />
              <rect :x="at(one.kept) - 2" y="2" width="4" height="18" fill="#B5304A" />
              <line
                :x1="at(one.start)"
                :x2="at(one.start)"
                y1="0"
                y2="22"
                stroke="#1B1F1E"
                stroke-dasharray="3 2"
              />
            </svg>
          </td>
          <td class="detail">{{ one.basis }}</td>
        </tr>
      </tbody>
    </table>
    <p class="quiet small">Start values: {{ yields.source }}.</p>
  </section>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  margin: 10px 0;
}

th,
td {
  text-align: left;
  padding: 4px 14px 4px 0;
  border-bottom: 1px solid #e4e8e6;
  vertical-align: middle;
}

thead th {
  font-size: 13px;
  font-weight: 500;
  color: var(--quiet);
}

tbody th {
  font-weight: 650;
}

.right {
  text-align: right;
  white-space: nowrap;
}

svg {
  display: block;
  width: 100%;
  min-width: 140px;
  max-width: 320px;
}

.detail {
  font-size: 14px;
}

@media (max-width: 719px) {
  table,
  tbody {
    display: block;
  }

  thead {
    display: none;
  }

  tr {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    padding: 8px 0;
    border-bottom: 1px solid #e4e8e6;
  }

  th,
  td {
    border: 0;
    padding: 0;
  }

  td:nth-child(2) {
    grid-row: 2;
    color: var(--quiet);
  }

  tbody th {
    grid-area: 1 / 1;
  }

  td:nth-child(3) {
    grid-area: 1 / 2;
  }

  td:nth-child(4) {
    grid-column: 1 / -1;
    grid-row: 3;
  }

  .detail {
    grid-column: 1 / -1;
    font-size: 13px;
  }
}
</style>
