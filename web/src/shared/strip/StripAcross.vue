<script setup lang="ts">
import { computed, toRef } from 'vue'
import { spanText } from '@/shared/quantity/when'
import { useUnits } from '@/shared/quantity/useUnits'
import AcrossDrawing from './AcrossDrawing.vue'
import StepHead from './StepHead.vue'
import { type Drawn, useStrip } from './useStrip'

/** The strip across the page: heads, drawing and ledger over the same columns. */
const props = defineProps<{ batch: Drawn; width: number }>()
const chosen = defineModel<number | null>('chosen', { required: true })
const batch = toRef(props, 'batch')
const { inUnit, cost, percent, unit, unitWord } = useUnits()

const { columns, coming } = useStrip(batch)
const count = computed(() => columns.value.length + coming.value.length)
const pitch = computed(() => Math.max(104, (props.width - 2) / count.value))
const total = computed(() => pitch.value * count.value)

type Expected = NonNullable<(typeof coming.value)[number]['expected']>
const pale = (tell: (step: Expected) => string): string[] =>
  coming.value.map(({ expected }) => (expected ? tell(expected) : ''))
const rows = computed(() => [
  {
    word: 'of this step',
    cells: columns.value.map((c) => percent(c.kept_of_step)),
    pale: pale((step) => percent(step.kept)),
  },
  {
    word: 'of bought',
    cells: columns.value.map((c, index) => (index ? percent(c.kept_of_bought) : 'all')),
    pale: pale((step) => percent(step.kept_of_bought)),
  },
  {
    word: 'spent',
    cells: columns.value.map((c) => dash(c.spent)),
    pale: pale((step) => dash(step.spent)),
  },
  {
    word: 'credit for trim',
    cells: columns.value.map((c) => dash(c.worth_back, '−')),
    pale: pale((step) => dash(step.worth_back, '−')),
  },
])
const dash = (money: string, sign = ''): string => (money === '0.00' ? '–' : `${sign}${money}`)
</script>

<template>
  <div
    class="scroll"
    :tabindex="total > width ? 0 : undefined"
    :role="total > width ? 'region' : undefined"
    aria-label="Steps"
  >
    <table :style="{ width: `${total}px` }">
      <caption class="unseen">
        Weight left in
        {{
          unit
        }}
        and price of a
        {{
          unitWord
        }}
        after each step
      </caption>
      <thead>
        <tr>
          <th v-for="(column, index) in columns" :key="index" scope="col">
            <StepHead v-model:chosen="chosen" :index="index" :count="columns.length">
              {{ column.label }}<span>{{ spanText(column.first_at, column.last_at) }}</span>
              <template v-if="index === 0">
                <span v-for="source in batch.sources ?? []" :key="source.lot" class="source"
                  >{{ source.piece }} of {{ source.batch }}</span
                >
              </template>
            </StepHead>
          </th>
          <th
            v-for="(one, index) in coming"
            :key="index"
            scope="col"
            class="coming"
            :title="one.expected?.basis"
          >
            {{ one.label }}<span>{{ one.expected ? 'expected' : 'to come, or skip' }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr class="unseen">
          <td v-for="(column, index) in columns" :key="index">
            {{ inUnit(column.weight_out) }} {{ unit }} left<template v-if="column.cost"
              >, {{ cost(column.cost) }} a {{ unitWord }}</template
            >
          </td>
          <td v-for="(one, index) in coming" :key="`step-${index}`">
            <template v-if="one.expected">
              {{ inUnit(one.expected.weight.middle) }} {{ unit }} expected,
              {{ cost(one.expected.price.low) }} to {{ cost(one.expected.price.high) }} a {{ unitWord }}:
              {{ one.expected.basis }}
            </template>
          </td>
        </tr>
        <tr aria-hidden="true">
          <td :colspan="count" class="drawing">
            <AcrossDrawing :batch="batch" :pitch="pitch" :count="count" :chosen="chosen" />
          </td>
        </tr>
        <tr v-for="row in rows" :key="row.word" class="ledger">
          <td v-for="(cell, index) in row.cells" :key="index" :class="{ lit: chosen === index }">
            <span class="row-word" :class="{ unseen: index > 0 }">{{ row.word }}</span>
            {{ cell }}
          </td>
          <td v-for="(cell, index) in row.pale" :key="`pale-${index}`" class="pale">{{ cell }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  position: relative;
}

table {
  border-collapse: collapse;
  table-layout: fixed;
}

th {
  padding: 0;
  text-align: left;
  vertical-align: top;
  border-left: 1px solid #dde2df;
  font-weight: 700;
  font-size: 16px;
}

th:first-child,
td:first-child {
  border-left: 0;
}

.coming {
  padding: 9px 10px;
  color: var(--quiet);
  font-weight: 500;
}

th span {
  display: block;
  font-weight: 450;
  font-size: 13px;
  font-stretch: 84%;
  color: var(--quiet);
}

.drawing {
  padding: 0;
  line-height: 0;
}

.ledger td {
  border-top: 1px solid #e4e8e6;
  border-left: 1px solid #dde2df;
  height: 28px;
  padding: 0 12px 0 4px;
  text-align: right;
  white-space: nowrap;
}

.ledger td.lit {
  background: #f1f4f2;
}

.ledger td.pale {
  color: var(--quiet);
}

.row-word {
  float: left;
  padding-left: 8px;
  font-size: 13px;
  font-stretch: 76%;
  color: var(--quiet);
  line-height: 28px;
}

.ledger td {
  line-height: 28px;
}
</style>
