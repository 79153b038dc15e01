<script setup lang="ts">
import ChooseFile from '@/shared/ui/ChooseFile.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, type Problem, refusal, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import Strip from '@/shared/strip/Strip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SaveBar from '@/shared/ui/SaveBar.vue'
import { ofStage, useUnits } from '@/shared/quantity/useUnits'
import { newKey } from '@/shared/writing/newKey'
import { useWrite } from '@/shared/writing/useWrite'
import FindingList from '@/shared/ui/FindingList.vue'

/** A batch document brought in: checked whole and shown first; made only once confirmed, all of it or nothing. */
type Imported = Schemas['ImportOut']
const slug = useSlug()
const queries = useQueryClient()
const { bothText, costText, unitWord } = useUnits()
const text = ref('')
const file = ref('')
const shown = ref<Imported | null>(null)
const problem = ref<Problem | null>(null)
const looking = ref(false)

const send = (dry_run: boolean, key: string): Promise<Imported> =>
  take(
    api.POST('/api/kitchens/{kitchen_slug}/imports', {
      params: { path: { kitchen_slug: slug.value }, query: { dry_run }, header: { 'Idempotency-Key': key } },
      body: { document: text.value },
    }),
  )
const made = useWrite<string, Imported>('import', (_text, key) => send(false, key))

async function look(): Promise<void> {
  shown.value = problem.value = null
  made.reset()
  if (!text.value) return
  looking.value = true
  problem.value = await refusal(async () => {
    shown.value = await send(true, newKey())
  })
  looking.value = false
}

async function choose(chosen: File): Promise<void> {
  file.value = chosen.name
  text.value = await chosen.text()
  await look()
}

function bringIn(): void {
  void made.write(text.value, (answer) => {
    shown.value = answer
    void queries.invalidateQueries()
  })
}
const many = computed(() => shown.value?.batches.length ?? 0)
const word = computed(() => (many.value === 1 ? 'Import this batch' : `Import these ${many.value} batches`))
</script>

<template>
  <div class="head"><h1>Import a batch document</h1></div>
  <section class="panel intro">
    <p>
      A file in the format dolmetsch-batch/1, as “Export” writes it. It is checked and shown first; nothing is
      saved until you confirm.
    </p>
    <ChooseFile
      :word="file ? 'Choose another file' : 'Choose a file'"
      accept=".json,application/json"
      @choose="choose"
    />
    <p v-if="file" class="quiet">{{ file }}</p>
    <p v-if="looking" role="status">Checking it …</p>
    <ProblemNote v-if="problem" :problem="problem" retry-word="Check again" @retry="look" />
  </section>
  <template v-if="shown">
    <p v-if="shown.written" class="panel done" role="status">
      <span aria-hidden="true">✓</span> Imported:
      <RouterLink
        v-for="one in shown.batches"
        :key="one.code"
        :to="{ name: 'strip', params: { code: one.code } }"
        >{{ one.code }} {{ one.name }}</RouterLink
      >
    </p>
    <section v-for="(one, place) in shown.batches" :key="place" class="batch" :aria-label="one.name">
      <h2>
        {{ one.name }} <span class="badge">{{ shown.written ? one.code : 'not imported yet' }}</span>
      </h2>
      <p class="quiet">
        {{ one.cut }}, {{ one.entries }} entries, {{ bothText(one.house.weight)
        }}<template v-if="one.house.unit_cost">
          at {{ costText(one.house.unit_cost) }} a {{ ofStage(one.house.stage, unitWord) }}</template
        >
      </p>
      <FindingList :findings="one.warnings" label="Check again" />
      <Strip :batch="{ strip: one.strip, shops: [] }" />
    </section>
    <form v-if="!shown.written" v-may:cook class="panel" @submit.prevent="bringIn">
      <SaveBar
        :word="word"
        :state="made.state.value"
        :problem="made.problem.value"
        @retry="made.retry"
        @cancel="shown = null"
      />
    </form>
  </template>
</template>

<style scoped>
.intro {
  display: grid;
  gap: 12px;
  justify-items: start;
}

.act:focus-within {
  outline: 3px solid var(--rose);
  outline-offset: 2px;
}

.batch {
  margin: 16px 0;
}

.done {
  margin-top: 16px;
  color: var(--good);
  font-weight: 640;
}

.done a {
  margin-left: 8px;
}

.care {
  border-left: 4px solid var(--care);
  padding-left: 8px;
  color: var(--care-ink);
}
</style>
