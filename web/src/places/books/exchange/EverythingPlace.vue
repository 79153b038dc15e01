<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import ChooseFile from '@/shared/ui/ChooseFile.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import BooksHead from '@/places/books/BooksHead.vue'
import { api, type Problem, refusal, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { capital } from '@/shared/quantity/capital'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

/** Everything out: each list, and all of it as one ZIP; and in: documents, spreadsheets, a whole kitchen. */
const slug = useSlug()
const queries = useQueryClient()
const { data } = useKitchenQuery('archive', '/archive')
const root = computed(() => `/api/kitchens/${slug.value}/archive`)
const problem = ref<Problem | null>(null)
const filled = ref<Schemas['FilledOut'] | null>(null)
const isFilling = ref(false)
async function fill(chosen: File): Promise<void> {
  isFilling.value = true
  problem.value = await refusal(async () => {
    filled.value = await take(
      api.POST('/api/kitchens/{kitchen_slug}/archive', {
        params: { path: { kitchen_slug: slug.value } },
        body: { file: chosen as unknown as string },
        bodySerializer: () => {
          const form = new FormData()
          form.append('file', chosen)
          return form
        },
      }),
    )
    void queries.invalidateQueries()
  })
  isFilling.value = false
}
const words: Record<string, string> = {
  entries: 'log entries',
  savings: 'saved compared with the shop',
  takings: 'what left the larder',
}
const label = (name: string): string => capital(words[name] ?? name)
</script>

<template>
  <BooksHead title="In and out" />
  <div class="two">
    <section class="panel" aria-label="Everything out">
      <h2>Everything out</h2>
      <p>
        One ZIP with all records, each batch as an open document and as a page, every list as CSV and XLSX,
        the photos and the schemas. An empty kitchen filled from it shows the same figures.
      </p>
      <ActButton v-may:owner first :href="`${root}/everything.zip`" download=""
        >Export everything (ZIP)</ActButton
      >
      <h3>List by list</h3>
      <ul class="lists">
        <li v-for="name in data?.lists" :key="name">
          <span>{{ label(name) }}</span>
          <a :href="`${root}/${name}.csv`" download :aria-label="`${label(name)} as CSV`">CSV</a>
          <a :href="`${root}/${name}.xlsx`" download :aria-label="`${label(name)} as XLSX`">XLSX</a>
        </li>
      </ul>
      <p class="quiet small">A batch’s own document and page are under Export on its verdict.</p>
    </section>
    <section v-may:cook class="panel" aria-label="In">
      <h2>In</h2>
      <p>
        <ActLink :to="{ name: 'history' }">Past batches, from a spreadsheet</ActLink>
      </p>
      <p><ActLink :to="{ name: 'import' }">A batch document</ActLink></p>
      <h3>A whole kitchen</h3>
      <template v-if="data?.is_empty">
        <p>This kitchen is empty: it can be filled from a ZIP that “Export everything” wrote.</p>
        <ChooseFile
          word="Choose the ZIP"
          accept=".zip,application/zip"
          :disabled="isFilling"
          @choose="fill"
        />
      </template>
      <p v-else-if="!filled" class="quiet">
        A ZIP of everything fills an empty kitchen only; this one has records of its own.
      </p>
      <p v-if="isFilling" role="status">Filling the kitchen …</p>
      <p v-if="filled" class="good" role="status">
        <span aria-hidden="true">✓</span> Filled: {{ filled.batches }} batches, {{ filled.records }} records,
        {{ filled.people }} people.
      </p>
      <ProblemNote v-if="problem" :problem="problem" />
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 420px), 1fr));
  gap: 16px;
  align-items: start;
}

section {
  display: grid;
  gap: 10px;
  justify-items: start;
}

h3 {
  font-size: 15px;
  margin: 8px 0 0;
}

.lists {
  width: 100%;
}

.lists li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 18px;
  align-items: center;
  border-bottom: 1px solid #e4e8e6;
}

.lists a {
  min-height: 40px;
  display: grid;
  place-items: center;
  padding: 0 6px;
}

.act:focus-within {
  outline: 3px solid var(--rose);
  outline-offset: 2px;
}
</style>
