<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { sorts } from './usePrices'

/** Which column is what, over the first rows of the list; and what stands for columns that are not there. */
const props = defineProps<{ list: Schemas['FileOut']; decimal: string }>()
type Match = Schemas['MatchIn']
const match = defineModel<Match>('match', { required: true })
const targets = [
  ['name', 'what it is'],
  ['price', 'the price'],
  ['size', 'the pack size'],
  ['unit', 'the unit'],
  ['day', 'the day'],
  ['sort', 'the kind'],
  ['kind', 'the shop pack'],
  ['slices', 'slices'],
  ['solution', 'water, %'],
] as const
type Target = (typeof targets)[number][0]
const columns = computed(() => match.value.columns as Partial<Record<Target, number>>)
const targetOf = (at: number): string => targets.find(([target]) => columns.value[target] === at)?.[0] ?? ''
const has = (target: Target): boolean => columns.value[target] !== undefined

function put(at: number, event: Event): void {
  const wanted = (event.target as HTMLSelectElement).value as Target | ''
  const kept = Object.entries(columns.value).filter(([target, place]) => place !== at && target !== wanted)
  match.value = {
    ...match.value,
    columns: Object.fromEntries(wanted ? [...kept, [wanted, at]] : kept) as Match['columns'],
  }
}
const decimalWord = computed(() => (props.decimal === '.' ? 'a point: 3.49' : 'a comma: 3,49'))
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="The first rows">
    <table>
      <thead>
        <tr>
          <td v-for="(head, at) in list.heads" :key="at">
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
          <th v-for="(head, at) in list.heads" :key="at" scope="col">{{ head }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, place) in list.first" :key="place">
          <td v-for="(cell, at) in row" :key="at" :class="{ dim: !targetOf(at) }">{{ cell }}</td>
        </tr>
      </tbody>
    </table>
  </div>
  <div class="rest">
    <label v-if="!has('sort')" class="named">
      <span>All of it is</span>
      <select v-model="match.sort" class="box">
        <option v-for="sort in sorts" :key="sort.value" :value="sort.value">
          {{ sort.word.toLowerCase() }}
        </option>
      </select>
    </label>
    <label v-if="!has('unit')" class="named">
      <span>A price alone is for</span>
      <select v-model="match.per" class="box">
        <option value="">what the pack size says</option>
        <option value="lb">a pound</option>
        <option value="kg">a kilogram</option>
        <option value="each">each</option>
      </select>
    </label>
    <label class="named">
      <span>Decimal sign</span>
      <select v-model="match.decimal" class="box">
        <option value="">automatic ({{ decimalWord }})</option>
        <option value=".">a point: 3.49</option>
        <option value=",">a comma: 3,49</option>
      </select>
    </label>
    <label v-if="!has('day')" class="named">
      <span>The prices are from</span>
      <input v-model="match.on" class="box" type="date" />
    </label>
    <label v-else class="named">
      <span>03/04/2026 means</span>
      <select v-model="match.day_first" class="box">
        <option :value="true">3 April</option>
        <option :value="false">4 March</option>
      </select>
    </label>
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

select.used {
  border: 2px solid var(--ink);
  font-weight: 650;
}

.rest {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}
</style>
