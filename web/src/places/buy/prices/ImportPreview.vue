<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import FaultRows from '@/shared/upload/FaultRows.vue'
import { usePer } from './usePrices'

/** What a list would write: how much is new, a few rows as read, every row that cannot be read. */
const props = defineProps<{ preview: Schemas['FilePreviewOut']; busy: boolean; begun: boolean }>()
defineEmits<{ write: []; cents: [isInCents: boolean] }>()
const { perText } = usePer()
const word = computed(() => {
  const { faulty, faults } = props.preview
  const count = props.preview.new
  const rest = faulty ? `, leave ${faulty} out` : ''
  return faults.length || count
    ? `Save ${count} new ${count === 1 ? 'price' : 'prices'}${rest}`
    : 'Nothing to save'
})
</script>

<template>
  <section class="panel" aria-label="What would be saved">
    <h2>What would be saved</h2>
    <ul v-if="preview.problems.length" class="problems">
      <li v-for="one in preview.problems" :key="one.path">{{ one.message }}</li>
    </ul>
    <template v-else>
      <p class="counts">
        <b>{{ preview.new }}</b> new, <b>{{ preview.known }}</b> already saved,
        <b :class="{ dear: preview.faulty }">{{ preview.faulty }}</b> cannot be read
      </p>
      <LedgerTable v-if="preview.sample.length">
        <thead>
          <tr>
            <th scope="col">Row</th>
            <th scope="col">What</th>
            <th scope="col">In the file</th>
            <th scope="col">Read as</th>
            <th scope="col">On</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in preview.sample" :key="row.row">
            <td>{{ row.row }}</td>
            <td>{{ row.name }}</td>
            <td>{{ row.price }}</td>
            <td>{{ perText(row.per) }}</td>
            <td>{{ row.on }}<span v-if="row.is_known" class="quiet">, already saved</span></td>
          </tr>
        </tbody>
      </LedgerTable>
      <ul v-if="preview.notes.length" class="detail">
        <li v-for="one in preview.notes" :key="one">{{ one }}</li>
      </ul>
      <div v-if="preview.asks_cents" class="asked" role="group" aria-label="Cents">
        <p><span aria-hidden="true">▲</span> {{ preview.asks_cents }}</p>
        <ActButton small @click="$emit('cents', true)">In cents</ActButton>
        <ActButton small @click="$emit('cents', false)">Whole money</ActButton>
      </div>
      <FaultRows :faults="preview.faults" />
      <ActButton
        first
        :disabled="busy || preview.asks_cents !== '' || (preview.new === 0 && !begun)"
        @click="$emit('write')"
      >
        {{ busy ? 'One moment …' : begun ? 'Continue saving' : word }}
      </ActButton>
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  justify-items: start;
}

.counts b {
  font-size: 20px;
}

table {
  border-collapse: collapse;
  font-size: 14px;
}

th,
td {
  text-align: left;
  padding: 3px 16px 3px 0;
  border-bottom: 1px solid #e4e8e6;
}

th {
  font-weight: 500;
  color: var(--quiet);
}

.detail li,
.problems li {
  border-left: 6px solid var(--care);
  background: var(--care-ground);
  padding: 4px 10px;
  margin-bottom: 4px;
}
</style>
