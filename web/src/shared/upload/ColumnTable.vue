<script setup lang="ts" generic="T extends string">
/** The first rows of a list, and above each column what it is taken for. */
const props = defineProps<{
  heads: string[]
  first: string[][]
  /** What a column may be: its key, and in words. */
  targets: readonly (readonly [T, string])[]
}>()
const columns = defineModel<Partial<Record<T, number>>>('columns', { required: true })
const targetOf = (at: number): string =>
  props.targets.find(([target]) => columns.value[target] === at)?.[0] ?? ''

function put(at: number, event: Event): void {
  const wanted = (event.target as HTMLSelectElement).value as T | ''
  const kept = Object.entries(columns.value).filter(([target, place]) => place !== at && target !== wanted)
  columns.value = Object.fromEntries(wanted ? [...kept, [wanted, at]] : kept) as Partial<Record<T, number>>
}
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="The first rows">
    <table>
      <thead>
        <tr>
          <td v-for="(head, at) in heads" :key="at">
            <label>
              <span class="unseen">Column {{ head }} is</span>
              <select
                class="box"
                :value="targetOf(at)"
                :class="{ used: targetOf(at) }"
                @change="put(at, $event)"
              >
                <option value="">skip</option>
                <option v-for="[target, word] in targets" :key="target" :value="target">{{ word }}</option>
              </select>
            </label>
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
    </table>
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

select {
  min-width: 132px;
}

select.used {
  border: 2px solid var(--ink);
  font-weight: 650;
}
</style>
