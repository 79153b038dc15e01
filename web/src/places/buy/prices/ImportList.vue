<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { ref, shallowRef } from 'vue'
import { vMay } from '@/shared/kitchen/vMay'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ChooseFile from '@/shared/ui/ChooseFile.vue'
import WrittenSoFar from '@/shared/upload/WrittenSoFar.vue'
import ImportPreview from './ImportPreview.vue'
import MatchColumns from './MatchColumns.vue'
import { usePriceList } from './usePriceList'
import { usePrices, type Sort } from './usePrices'

/** A supplier's list brought in: uploaded, its columns matched, checked; written only once confirmed. */
const known = usePrices(ref<Sort>('meat'), ref(''), ref(0))
const source = ref('')
const file = shallowRef<File | null>(null)
const {
  kept: list,
  match,
  busy,
  begun,
  problem,
  preview,
  isLooking,
  look,
  forget,
  upload,
  write,
} = usePriceList(source)

/** It is read as soon as it is known whose it is. */
function choose(chosen: File): void {
  file.value = chosen
  forget()
  read()
}

function read(): void {
  if (file.value && source.value.trim()) void upload(file.value)
}

function tryAgain(): void {
  if (begun.value) void write()
  else if (list.value) look()
  else read()
}
</script>

<template>
  <div class="head">
    <h1>Import a price list</h1>
  </div>
  <section v-may:cook class="panel intro">
    <p>
      A supplier’s list or receipts, as CSV or a workbook (XLSX). Match its columns, check it, and only then
      is anything saved. Importing the same list twice changes nothing.
    </p>
    <div class="from">
      <TypedInput
        v-model="source"
        class="source"
        label="Supplier"
        maxlength="60"
        placeholder="Tidewell Provisions"
        :suggestions="known.data.value?.sources ?? []"
      />
      <ChooseFile :word="file ? 'Choose another file' : 'Choose a file'" @choose="choose" />
      <ActButton v-if="file && !list" first :disabled="!source.trim()" @click="read">
        Read {{ file.name }}
      </ActButton>
    </div>
    <p v-if="file && !source.trim()" class="small care">
      Enter the supplier first: prices are saved by source.
    </p>
    <p v-if="busy === 'reading'" role="status">Reading {{ file?.name }} …</p>
    <p v-for="note in list?.notes ?? []" :key="note" class="small">{{ note }}</p>
    <ProblemNote
      v-if="problem"
      :problem="problem"
      :retry-word="problem.code === 'no_connection' ? 'Try again' : ''"
      @retry="tryAgain"
    />
  </section>
  <template v-if="list && match">
    <section v-if="!begun" class="panel" aria-label="Match the columns">
      <h2>{{ list.name }}, {{ list.rows }} {{ list.rows === 1 ? 'row' : 'rows' }}</h2>
      <p v-if="list.is_remembered" class="small good">Matched like the last list from {{ list.source }}.</p>
      <MatchColumns v-model:match="match" :list="list" :decimal="preview?.decimal ?? '.'" />
    </section>
    <WrittenSoFar v-if="begun" :kept="list">
      <ActLink first :to="{ name: 'prices' }">See the price list</ActLink>
    </WrittenSoFar>
    <ImportPreview
      v-if="preview && !list.is_done"
      :preview="preview"
      :busy="busy !== '' || isLooking"
      :begun="begun"
      @write="write"
      @cents="(isInCents) => (match = { ...match!, is_in_cents: isInCents })"
    />
  </template>
</template>

<style scoped>
.intro {
  display: grid;
  gap: 10px;
  justify-items: start;
}

section {
  margin-bottom: 12px;
}

.from {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
}

.care {
  color: var(--care-ink);
}
</style>
