<script setup lang="ts" generic="T extends string">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
/** The first rows of a list, and above each column what it is taken for. */
const props = defineProps<{
  heads: string[]
  first: string[][]
  /** What a column may be: its key, and in words. */
  targets: readonly (readonly [T, string])[]
}>()
const columns = defineModel<Partial<Record<T, number>>>('columns', { required: true })
const targetOf = (at: number): T | '' =>
  props.targets.find(([target]) => columns.value[target] === at)?.[0] ?? ''

function put(at: number, wanted: T | ''): void {
  const kept = Object.entries(columns.value).filter(([target, place]) => place !== at && target !== wanted)
  columns.value = Object.fromEntries(wanted ? [...kept, [wanted, at]] : kept) as Partial<Record<T, number>>
}
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="The first rows">
    <LedgerTable>
      <thead>
        <tr>
          <td v-for="(head, at) in heads" :key="at">
            <SelectBox
              :label="`Column ${head} is`"
              quiet-label
              :class="{ used: targetOf(at) }"
              :model-value="targetOf(at)"
              @update:model-value="(target) => put(at, target)"
            >
              <option value="">skip</option>
              <option v-for="[target, word] in targets" :key="target" :value="target">{{ word }}</option>
            </SelectBox>
          </td>
        </tr>
        <tr>
          <th v-for="(head, at) in heads" :key="at" scope="col">{{ head }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, place) in first" :key="place">
          <td v-for="(cell, at) in row" :key="at" :class="{ dim: !targetOf(at) }">{{ cell }}</td>
        </tr>
      </tbody>
    </LedgerTable>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  margin: 8px 0 12px;
}

table {
  border-collapse: collapse;
  font-size: 14px;
}

th,
td {
  text-align: left;
  padding: 4px 12px 4px 0;
  white-space: nowrap;
  border-bottom: 1px solid #e4e8e6;
  max-width: 260px;
  overflow: hidden;
  text-overflow: ellipsis;
}

th {
  font-weight: 680;
}

.dim {
  color: var(--quiet);
}
</style>
