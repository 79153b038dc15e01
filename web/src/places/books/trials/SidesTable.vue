<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import type { Trial } from './useTrials'

/** The sides of a trial beside each other: cure, salt, time, yields by step, price. */
defineProps<{ trial: Trial }>()
const { weightText, costText, unitWord, percent } = useUnits()
const dayWord = (days: number): string =>
  days === 0 ? 'the same day' : days === 1 ? '1 day' : `${days} days`
</script>

<template>
  <section class="panel scroll" aria-label="Side by side" tabindex="0">
    <h2>Side by side</h2>
    <LedgerTable>
      <thead>
        <tr>
          <th scope="col"><span class="unseen">What</span></th>
          <th v-for="side in trial.sides" :key="side.letter" scope="col">
            <b>{{ side.letter }}</b> {{ side.what }}
            <RouterLink :to="{ name: 'strip', params: { code: side.batch } }">
              {{ side.batch }} {{ side.mark }}
            </RouterLink>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">Cure</th>
          <td v-for="side in trial.sides" :key="side.letter">{{ side.cure ?? 'not recorded' }}</td>
        </tr>
        <tr>
          <th scope="row">Salt in the slice, expected</th>
          <td v-for="side in trial.sides" :key="side.letter">{{ side.salt ?? '–' }}</td>
        </tr>
        <tr>
          <th scope="row">From buying to the last step</th>
          <td v-for="side in trial.sides" :key="side.letter">{{ dayWord(side.days) }}</td>
        </tr>
        <tr v-for="step in trial.steps" :key="step.kind">
          <th scope="row">Kept, {{ step.label.toLowerCase() }}</th>
          <td v-for="(kept, at) in step.kept" :key="at">{{ percent(kept) }}</td>
        </tr>
        <tr class="strong">
          <th scope="row">Kept of what was bought</th>
          <td v-for="side in trial.sides" :key="side.letter">{{ percent(side.kept) }}</td>
        </tr>
        <tr>
          <th scope="row">Weight now</th>
          <td v-for="side in trial.sides" :key="side.letter">
            {{ side.weight ? weightText(side.weight) : 'gone into others' }}
          </td>
        </tr>
        <tr class="strong">
          <th scope="row">A {{ unitWord }} costs</th>
          <td v-for="side in trial.sides" :key="side.letter">
            {{ side.price ? costText(side.price) : '–' }}
            <span v-if="side.price && !side.is_finished" class="quiet small">so far, {{ side.stage }}</span>
          </td>
        </tr>
      </tbody>
    </LedgerTable>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

table {
  border-collapse: collapse;
  width: 100%;
  margin-top: 8px;
}

th,
td {
  text-align: left;
  vertical-align: top;
  padding: 6px 12px 6px 0;
  border-bottom: 1px solid #e4e8e6;
  font-weight: 400;
  min-width: 92px;
}

tbody th {
  color: var(--quiet);
}

thead th a {
  display: block;
  font-size: 14px;
}

.strong td {
  font-weight: 700;
}
</style>
