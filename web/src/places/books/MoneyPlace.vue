<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import { computed } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import TwoColumns from '@/shared/ui/TwoColumns.vue'
import { useInAddress } from '@/shared/ui/useInAddress'
import BooksHead from './BooksHead.vue'
import SavedLine from './SavedLine.vue'
import ToolsPanel from './ToolsPanel.vue'
import { useMoneyBook } from './useBooks'

/** What a year saved or lost beside the shop, by batch and month, what an hour earned, where packs went. */
const year = useInAddress<string>('year', '')
const kind = useInAddress<string>('kind', '')
const { data, error, refetch } = useMoneyBook(year, kind)
const { money, costText, unitWord, weightText, percent } = useUnits()
const years = computed(() =>
  (data.value?.years ?? []).map((one) => ({ value: String(one.year), word: String(one.year) })).reverse(),
)
const kinds = computed(() => (data.value?.kinds ?? []).map((one) => ({ value: one, word: one })))
const shownYear = computed({
  get: () => String(data.value?.year ?? ''),
  set: (value: string) => (year.value = value),
})
const shownKind = computed({
  get: () => data.value?.kind ?? '',
  set: (value: string) => (kind.value = value),
})
const monthText = (month: string): string =>
  new Date(`${month}T12:00`).toLocaleDateString('en-US', { month: 'long' })
const sums = computed(() => data.value?.sums)
</script>

<template>
  <BooksHead title="Money" />
  <LoadState v-if="!data" :error="error" what="the money" @retry="refetch()" />
  <p v-else-if="!data.kind || !sums" class="panel">
    Nothing to compare yet: finish a batch that has a shop pack beside it.
  </p>
  <template v-else>
    <div class="choices">
      <ChoiceBar v-model="shownYear" label="Year" :choices="years" />
      <ChoiceBar v-model="shownKind" label="Beside" :choices="kinds" />
    </div>
    <TwoColumns>
      <section class="panel" aria-label="Saved">
        <h2>
          {{ sums.saved.startsWith('-') ? 'Lost' : 'Saved' }} beside {{ data.kind }},
          {{ data.year }}
        </h2>
        <SavedLine :points="data.points" :year="data.year" />
        <dl>
          <div>
            <dt>With work at its wage</dt>
            <dd>{{ money(sums.saved) }}</dd>
          </div>
          <div>
            <dt>Without work counted</dt>
            <dd>{{ money(sums.saved_without_work) }}</dd>
          </div>
          <div>
            <dt>A finished {{ unitWord }}</dt>
            <dd>{{ sums.per_weight ? costText(sums.per_weight) : '–' }}</dd>
          </div>
          <div>
            <dt>A month</dt>
            <dd>{{ sums.per_month ? money(sums.per_month) : '–' }}</dd>
          </div>
          <div>
            <dt>An hour earned</dt>
            <dd>{{ sums.earned_an_hour ? money(sums.earned_an_hour) : '–' }}</dd>
          </div>
        </dl>
        <p v-if="sums.too_little" class="care">{{ sums.too_little }}</p>
        <p class="quiet small">
          {{ sums.batches }} batches, {{ weightText(sums.weight) }} finished: {{ sums.beat }} cheaper than the
          shop, {{ sums.lost }} more expensive. {{ sums.hours }} hours of work in
          {{ sums.hours_batches }} batches whose minutes were recorded.
        </p>
      </section>
      <section class="panel scroll" aria-label="By month" tabindex="0">
        <h2>By month</h2>
        <LedgerTable>
          <thead>
            <tr>
              <th scope="col">Month</th>
              <th scope="col">Batches</th>
              <th scope="col">Finished</th>
              <th scope="col">Saved</th>
              <th scope="col">Without work</th>
              <th scope="col">A {{ unitWord }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="month in data.months" :key="month.month">
              <th scope="row">{{ monthText(month.month) }}</th>
              <td>{{ month.batches }}</td>
              <td>{{ weightText(month.weight) }}</td>
              <td :class="month.saved.startsWith('-') ? 'dear' : 'good'">{{ money(month.saved) }}</td>
              <td>{{ money(month.saved_without_work) }}</td>
              <td>{{ month.per_weight ? costText(month.per_weight) : '–' }}</td>
            </tr>
          </tbody>
        </LedgerTable>
        <template v-if="data.years.length > 1">
          <h2>By year</h2>
          <LedgerTable>
            <tbody>
              <tr v-for="one in data.years" :key="one.year">
                <th scope="row">{{ one.year }}</th>
                <td>{{ one.batches }} batches</td>
                <td :class="one.saved.startsWith('-') ? 'dear' : 'good'">{{ money(one.saved) }}</td>
              </tr>
            </tbody>
          </LedgerTable>
        </template>
      </section>
      <template #side>
        <ToolsPanel :tools="data.tools" />
        <section class="panel" aria-label="Sold and eaten">
          <h2>Where packs went, {{ data.year }}</h2>
          <p v-if="!data.fates.length" class="quiet">Nothing has left the larder.</p>
          <LedgerTable v-else>
            <thead>
              <tr>
                <th scope="col">Packs</th>
                <th scope="col">Weight</th>
                <th scope="col">Cost</th>
                <th scope="col">Income</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="fate in data.fates" :key="fate.fate">
                <th scope="row">{{ fate.label }}</th>
                <td>{{ weightText(fate.weight) }}</td>
                <td>{{ money(fate.cost) }}</td>
                <td>{{ Number(fate.income) ? money(fate.income) : '–' }}</td>
              </tr>
            </tbody>
          </LedgerTable>
          <p v-if="data.sold_part">
            Of what people ate, {{ percent(data.sold_part) }} was sold or plated, by what it cost.
          </p>
        </section>
        <section class="panel" aria-label="Thrown away">
          <h2>Thrown away, {{ data.year }}</h2>
          <p class="big">{{ weightText(data.thrown_weight) }}</p>
          <p class="quiet">
            It cost {{ money(data.thrown_cost) }}: pieces thrown away in making, and packs spoiled or thrown
            away. Pieces whose cost the rest of their batch bears count by weight alone.
          </p>
        </section>
      </template>
    </TwoColumns>
  </template>
</template>

<style scoped>
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 28px;
  margin-bottom: 12px;
}

dl {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 28px;
  margin: 12px 0;
}

dt {
  font-size: 13px;
  color: var(--quiet);
}

dd {
  font-size: 20px;
  font-weight: 720;
}

table {
  width: 100%;
  border-collapse: collapse;
  margin: 8px 0;
}

th,
td {
  padding: 5px 6px;
  text-align: right;
  border-bottom: 1px solid #e4e8e6;
  white-space: nowrap;
}

th:first-child {
  text-align: left;
  white-space: normal;
}

thead th {
  font-size: 13px;
  font-weight: 500;
  color: var(--quiet);
}

.scroll {
  overflow-x: auto;
}

.big {
  font-size: 26px;
  font-weight: 750;
}

.care {
  color: var(--care-ink);
}
</style>
