<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import FaultRows from '@/shared/upload/FaultRows.vue'
import { useUnits } from '@/shared/quantity/useUnits'

/** What a spreadsheet would make: how many batches, the first of them, and every row that cannot be read. */
const props = defineProps<{ preview: Schemas['HistoryPreviewOut']; busy: boolean }>()
defineEmits<{ write: [] }>()
const { weightText, costText, unitWord, percent } = useUnits()
const word = computed(() => {
  const { faulty } = props.preview
  const count = props.preview.new
  const rest = faulty ? `, leave ${faulty} out` : ''
  return count ? `Save ${count} ${count === 1 ? 'batch' : 'batches'}${rest}` : 'Nothing to save'
})
</script>

<template>
  <section class="panel" aria-label="What would be saved">
    <h2>What would be saved</h2>
    <ul v-if="preview.problems.length" class="problems" role="status">
      <li v-for="one in preview.problems" :key="one.path">{{ one.message }}</li>
    </ul>
    <template v-else>
      <p>
        <b>{{ preview.new }}</b> new, <b>{{ preview.known }}</b> already saved,
        <b :class="{ dear: preview.faulty }">{{ preview.faulty }}</b> cannot be read
      </p>
      <div class="scroll" tabindex="0" role="region" aria-label="The first batches">
        <LedgerTable v-if="preview.sample.length">
          <thead>
            <tr>
              <th scope="col">Row</th>
              <th scope="col">Batch</th>
              <th scope="col">Cut</th>
              <th scope="col">Begun</th>
              <th scope="col" class="right">Bought</th>
              <th scope="col" class="right">Finished</th>
              <th scope="col" class="right">Kept</th>
              <th scope="col" class="right">Meat, a finished {{ unitWord }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in preview.sample" :key="row.row">
              <td>{{ row.row }}</td>
              <td>{{ row.name }}<span v-if="row.is_known" class="quiet">, already saved</span></td>
              <td>{{ row.cut }}</td>
              <td>{{ row.day }}</td>
              <td class="right">{{ weightText(row.bought) }}</td>
              <td class="right">{{ weightText(row.finished) }}</td>
              <td class="right">{{ percent(row.kept) }}</td>
              <td class="right">{{ row.price ? costText(row.price) : '–' }}</td>
            </tr>
          </tbody>
        </LedgerTable>
      </div>
      <ul v-if="preview.notes.length" class="small">
        <li v-for="one in preview.notes" :key="one">{{ one }}</li>
      </ul>
      <FaultRows :faults="preview.faults" />
      <ActButton first :disabled="busy || !preview.new" @click="$emit('write')">
        {{ word }}
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

.problems {
  color: var(--care-ink);
  font-weight: 600;
}

.scroll {
  overflow-x: auto;
  max-width: 100%;
}

table {
  border-collapse: collapse;
}

th,
td {
  text-align: left;
  padding: 4px 14px 4px 0;
  border-bottom: 1px solid #e4e8e6;
  white-space: nowrap;
}

.right {
  text-align: right;
}
</style>
