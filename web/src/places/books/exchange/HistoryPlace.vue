<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed } from 'vue'
import BooksHead from '@/places/books/BooksHead.vue'
import ColumnTable from '@/shared/upload/ColumnTable.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ChooseFile from '@/shared/ui/ChooseFile.vue'
import WrittenSoFar from '@/shared/upload/WrittenSoFar.vue'
import HistoryPreview from './HistoryPreview.vue'
import { type HistoryMatch, useHistory } from './useHistory'

/** Past batches, from a spreadsheet: columns matched, rows looked over, nothing saved until confirmed. */
const { kept: file, match, preview, problem, begun, busy, upload, write } = useHistory()
const targets = [
  ['name', 'its name'],
  ['cut', 'the cut'],
  ['day', 'the day it was begun'],
  ['finished', 'the day it was finished'],
  ['bought', 'weight as bought'],
  ['paid', 'paid for the meat'],
  ['price', 'price by weight'],
  ['trim', 'weight after trimming'],
  ['cure', 'weight after the cure'],
  ['rest', 'weight after resting'],
  ['smoke', 'weight after the smoke'],
  ['chill', 'weight after chilling'],
  ['dry', 'weight after drying'],
  ['slice', 'finished weight'],
  ['slices', 'slices'],
  ['minutes', 'minutes of work'],
  ['unit', 'unit of weight'],
  ['source', 'bought from'],
  ['way', 'method'],
] as const
type Target = (typeof targets)[number][0]
const columns = computed(() => (match.value?.columns ?? {}) as Partial<Record<Target, number>>)
function put(found: Partial<Record<Target, number>>): void {
  if (match.value) match.value = { ...match.value, columns: found as HistoryMatch['columns'] }
}
const dayOrder = computed({
  get: () => (match.value?.day_first == null ? '' : String(match.value.day_first)),
  set: (value: string) => {
    if (match.value) match.value = { ...match.value, day_first: value === '' ? null : value === 'true' }
  },
})
</script>

<template>
  <BooksHead title="Past batches" />
  <section v-may:cook class="panel intro">
    <p>
      A spreadsheet of batches you made before, one a row (CSV or XLSX): what was bought and paid, the weights
      you took, the finished weight. They become finished batches, so that yields and forecasts are this
      kitchen’s own. Importing the same file twice changes nothing.
    </p>
    <ChooseFile first :word="file ? 'Choose another file' : 'Choose a file'" @choose="upload" />
    <p v-if="busy === 'reading'" role="status">Reading it …</p>
    <p v-for="note in file?.notes ?? []" :key="note" class="small">{{ note }}</p>
    <ProblemNote
      v-if="problem"
      :problem="problem"
      :retry-word="begun && problem.code === 'no_connection' ? 'Try again' : ''"
      @retry="write"
    />
  </section>
  <template v-if="file && match">
    <section v-if="!begun" class="panel" aria-label="Match the columns">
      <h2>{{ file.name }}, {{ file.rows }} {{ file.rows === 1 ? 'row' : 'rows' }}</h2>
      <p v-if="file.is_remembered" class="small good">Matched as the last time.</p>
      <ColumnTable
        :heads="file.heads"
        :first="file.first"
        :targets="targets"
        :columns="columns"
        @update:columns="put"
      />
      <div class="rest">
        <SelectBox
          v-model="match.unit"
          :class="{ asked: preview?.asks_unit }"
          label="Weights without a unit are in"
        >
          <option value="">say which</option>
          <option value="lb">pounds</option>
          <option value="kg">kilograms</option>
          <option value="oz">ounces</option>
          <option value="g">grams</option>
        </SelectBox>
        <SelectBox v-model="dayOrder" :class="{ asked: preview?.asks_days }" label="03/04/2026 means">
          <option value="">as the file shows</option>
          <option value="true">3 April</option>
          <option value="false">4 March</option>
        </SelectBox>
        <SelectBox v-model="match.decimal" label="Decimal sign">
          <option value="">automatic</option>
          <option value=".">a point: 3.49</option>
          <option value=",">a comma: 3,49</option>
        </SelectBox>
        <TypedInput
          v-if="columns.cut === undefined"
          v-model="match.cut"
          label="All of them are"
          maxlength="80"
          placeholder="jowl, skin on"
        />
      </div>
    </section>
    <WrittenSoFar v-if="begun" :kept="file">
      <ActLink first :to="{ name: 'yields' }">See the yields</ActLink>
    </WrittenSoFar>
    <HistoryPreview v-if="preview && !file.is_done" :preview="preview" :busy="busy !== ''" @write="write" />
  </template>
</template>

<style scoped>
section {
  margin-bottom: 12px;
}

.intro {
  display: grid;
  gap: 10px;
  justify-items: start;
}

.rest {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}
</style>
