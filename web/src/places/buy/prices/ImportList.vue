<script setup lang="ts">
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, type Problem, refusal, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { newKey } from '@/shared/writing/newKey'
import ImportPreview from './ImportPreview.vue'
import MatchColumns from './MatchColumns.vue'
import { usePrices, type Sort } from './usePrices'

/** A supplier's list brought in: uploaded, its columns matched, checked; written only once confirmed. */
type List = Schemas['FileOut']
const slug = useSlug()
const queries = useQueryClient()
const known = usePrices(ref<Sort>('meat'), ref(''), ref(0))
const source = ref('')
const list = ref<List | null>(null)
const match = ref<Schemas['MatchIn'] | null>(null)
const refused = ref<Problem | null>(null)
const busy = ref<'' | 'reading' | 'writing'>('')
const started = ref(0)
const file = ref<File | null>(null)
const path = computed(() => ({ kitchen_slug: slug.value, file_id: list.value?.id ?? 0 }))

/** Runs `act`, its refusal shown on the page. */
async function trying(what: typeof busy.value, act: () => Promise<void>): Promise<void> {
  busy.value = what
  refused.value = await refusal(act)
  busy.value = ''
}

function choose(event: Event): void {
  const input = event.target as HTMLInputElement
  file.value = input.files?.[0] ?? null
  input.value = ''
  list.value = match.value = null
  if (source.value.trim()) void upload()
}

const upload = (): Promise<void> =>
  trying('reading', async () => {
    const chosen = file.value
    if (!chosen) return
    const answer = await take(
      api.POST('/api/kitchens/{kitchen_slug}/price-lists', {
        params: {
          path: { kitchen_slug: slug.value },
          header: { 'Idempotency-Key': newKey() },
        },
        body: { file: chosen as unknown as string, source: source.value },
        bodySerializer: () => {
          const form = new FormData()
          form.append('file', chosen)
          form.append('source', source.value)
          return form
        },
      }),
    )
    list.value = answer
    match.value = structuredClone(answer.match)
  })

const {
  last: preview,
  problem: unread,
  isAsking: isLooking,
  again: look,
} = useAsking(
  'price list',
  () => (match.value && list.value && !list.value.is_done ? { id: list.value.id, match: match.value } : null),
  ({ id, match }) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/price-lists/{file_id}/preview', {
        params: { path: { kitchen_slug: slug.value, file_id: id } },
        body: match,
      }),
    ),
  { wait: 250 },
)

// another match is another question: what was refused before is no longer said
watch(match, () => (refused.value = null), { deep: true })
/** What went wrong last: with the file, or with looking it over. */
const problem = computed(() => refused.value ?? unread.value)

/** Piece by piece, each from where the last one ended; a broken connection is gone on from there. */
const bringIn = (): Promise<void> =>
  trying('writing', async () => {
    const confirmed = match.value
    if (!confirmed) return
    started.value = Date.now()
    while (list.value && !list.value.is_done) {
      list.value = await take(
        api.POST('/api/kitchens/{kitchen_slug}/price-lists/{file_id}/write', {
          params: { path: path.value, header: { 'Idempotency-Key': newKey() } },
          body: { from_row: list.value.next_row, match: confirmed },
        }),
      )
    }
    void queries.invalidateQueries({ queryKey: ['prices'] })
    void queries.invalidateQueries({ queryKey: ['case'] })
  })
const part = computed(() => (list.value ? Math.round((100 * list.value.next_row) / list.value.rows) : 0))
const begun = computed(() => (list.value?.next_row ?? 0) > 0)
</script>

<template>
  <div class="head">
    <h1>Import a price list</h1>
    <div class="acts"><RouterLink class="act" :to="{ name: 'prices' }">Price list</RouterLink></div>
  </div>
  <section v-may:cook class="panel intro">
    <p>
      A supplier’s list or receipts, as CSV or a workbook (XLSX). Match its columns, check it, and only then
      is anything saved. Importing the same list twice changes nothing.
    </p>
    <div class="from">
      <label class="named source">
        <span>Supplier</span>
        <input
          v-model="source"
          class="box"
          type="text"
          list="sources"
          maxlength="60"
          placeholder="Tidewell Provisions"
        />
        <datalist id="sources">
          <option v-for="one in known.data.value?.sources ?? []" :key="one" :value="one" />
        </datalist>
      </label>
      <label class="act">
        {{ file ? 'Choose another file' : 'Choose a file' }}
        <input class="unseen" type="file" accept=".csv,.txt,.tsv,.xlsx" @change="choose" />
      </label>
      <button v-if="file && !list" type="button" class="act first" :disabled="!source.trim()" @click="upload">
        Read {{ file.name }}
      </button>
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
      @retry="begun ? bringIn() : list ? look() : upload()"
    />
  </section>
  <template v-if="list && match">
    <section v-if="!begun" class="panel" aria-label="Match the columns">
      <h2>{{ list.name }}, {{ list.rows }} {{ list.rows === 1 ? 'row' : 'rows' }}</h2>
      <p v-if="list.is_remembered" class="small good">Matched like the last list from {{ list.source }}.</p>
      <MatchColumns v-model:match="match" :list="list" :decimal="preview?.decimal ?? '.'" />
    </section>
    <section v-if="begun" class="panel progress" aria-live="polite">
      <p>
        <b>{{ list.is_done ? 'Saved' : 'Saving' }}:</b> {{ list.next_row }} of {{ list.rows }} rows,
        {{ list.added }} new, {{ list.known }} already saved, {{ list.faulty }} left out
      </p>
      <progress :value="list.next_row" :max="list.rows" :aria-label="`${part} percent saved`" />
      <RouterLink v-if="list.is_done" class="act first" :to="{ name: 'prices' }"
        >See the price list</RouterLink
      >
    </section>
    <ImportPreview
      v-if="preview && !list.is_done"
      :preview="preview"
      :busy="busy !== '' || isLooking"
      :begun="begun"
      @write="bringIn"
      @cents="(isInCents) => (match = { ...match!, is_in_cents: isInCents })"
    />
  </template>
</template>

<style scoped>
.intro,
.progress {
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

progress {
  width: 100%;
  height: 18px;
  accent-color: var(--rose);
}

.act:focus-within {
  outline: 3px solid var(--rose);
  outline-offset: 2px;
}
</style>
