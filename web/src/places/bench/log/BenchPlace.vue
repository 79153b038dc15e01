<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { type Component, computed, nextTick, ref, toRef } from 'vue'
import type { Batch, Entry } from '@/shared/api/client'
import { useBatch } from '@/shared/api/useBatch'
import ForecastNote from '@/shared/outlook/ForecastNote.vue'
import { useForecast } from '@/shared/outlook/useForecast'
import Strip from '@/shared/strip/Strip.vue'
import BatchHead from '@/shared/ui/BatchHead.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import { useKeys, useLinkKeys } from '@/shared/frame/useKeys'
import BatchLog from './BatchLog.vue'
import BoughtForm from './forms/BoughtForm.vue'
import ButchersTest from './ButchersTest.vue'
import CourseForm from './forms/CourseForm.vue'
import FinishForm from './forms/FinishForm.vue'
import LookOver from './LookOver.vue'
import PieceSizes from './PieceSizes.vue'
import PolicyForm from './forms/PolicyForm.vue'
import StepForm from './forms/StepForm.vue'
import TermsForm from './forms/TermsForm.vue'
import TogetherForm from './forms/TogetherForm.vue'

/** A batch's bench: what to record next, what the strip says of it, and the log. */
const props = defineProps<{ code: string }>()
const { data: batch, error, refetch, put } = useBatch(toRef(props, 'code'))
const { data: forecast } = useForecast(
  toRef(props, 'code'),
  computed(() => batch.value?.seen),
)
type Task = { act: string; entry: Entry | null }
const task = ref<Task>({ act: 'step', entry: null })
const said = ref('')
const card = ref<HTMLElement | null>(null)

const titles: Record<string, string> = {
  portion: 'Set the portion',
  shop_pack: 'Add a shop pack',
  fry: 'Record a frying test',
  merge: 'Combine pieces',
  discard: 'Throw pieces away',
  bought: 'Add meat',
  finish: 'Mark as finished',
  course: 'Say what it becomes',
  look: 'Check the meat',
  test: 'Butcher’s test',
  sizes: 'Sizes and places',
}
/** What else may be recorded, beside the next step. */
const others = [
  'course',
  'look',
  'test',
  'sizes',
  'portion',
  'shop_pack',
  'fry',
  'merge',
  'discard',
  'bought',
]
const acts = computed(() => (batch.value?.is_finished ? others : [...others, 'finish']))
const title = computed(() => {
  const { act, entry } = task.value
  if (entry) return `Correct entry ${entry.sequence}: ${entry.label.toLowerCase()}`
  return titles[act] ?? 'Record what was done'
})

/** The form for each act; a step is any other. */
const forms: Record<string, Component> = {
  portion: TermsForm,
  shop_pack: TermsForm,
  fry: TermsForm,
  merge: TogetherForm,
  discard: TogetherForm,
  policy: PolicyForm,
  look: LookOver,
  test: ButchersTest,
  sizes: PieceSizes,
  bought: BoughtForm,
  finish: FinishForm,
  course: CourseForm,
}
const form = computed(() => {
  const is = forms[task.value.act] ?? StepForm
  return { is, props: is === TermsForm || is === TogetherForm ? { act: task.value.act } : {} }
})

async function take(next: Task): Promise<void> {
  said.value = ''
  task.value = next
  await nextTick()
  card.value?.focus({ preventScroll: true })
  card.value?.scrollIntoView({ block: 'start' })
}
const correct = (entry: Entry): void => void take({ act: entry.act, entry })

function recorded(now: Batch, words: string): void {
  put(now)
  const latest = now.log.at(-1)
  task.value = { act: 'step', entry: null }
  said.value = latest ? `${words}: ${latest.label.toLowerCase()}, ${latest.lines[0]}` : words
}
useLinkKeys({ v: 'strip', g: 'weigh', c: 'cure', d: 'diary' })
useKeys({ w: () => card.value?.querySelector<HTMLElement>('input[type="text"]')?.focus() })
</script>

<template>
  <LoadState v-if="!batch" :error="error" :what="`batch ${code}`" @retry="refetch()" />
  <template v-else>
    <BatchHead :batch="batch">
      <ActLink v-may:helper :to="{ name: 'weigh', params: { code } }">Weigh</ActLink>
    </BatchHead>
    <div class="bench">
      <section ref="card" class="panel record" tabindex="-1" :aria-label="title">
        <h2>{{ title }}</h2>
        <p v-if="said" class="said" role="status"><span aria-hidden="true">✓</span> {{ said }}</p>
        <component
          :is="form.is"
          :key="`${task.act}-${task.entry?.id}`"
          v-bind="form.props"
          :batch="batch"
          :correcting="task.entry"
          @trying="said = ''"
          @recorded="recorded"
          @stale="refetch()"
          @cancel="take({ act: 'step', entry: null })"
        />
        <div v-if="!task.entry" class="terms">
          <ActButton v-if="task.act !== 'step'" small @click="take({ act: 'step', entry: null })">
            Back to recording
          </ActButton>
          <template v-else>
            <ActButton v-for="act in acts" :key="act" small @click="take({ act, entry: null })">
              {{ titles[act] }}
            </ActButton>
          </template>
        </div>
      </section>
      <div class="detail">
        <Strip :batch="{ ...batch, forecast: forecast ?? null }" />
        <ForecastNote v-if="forecast && !batch.is_finished" :code="code" :forecast="forecast" />
        <section class="panel" aria-label="Log">
          <h2>Log</h2>
          <BatchLog :batch="batch" :correcting-id="task.entry?.id ?? null" @correct="correct" />
        </section>
      </div>
    </div>
  </template>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-columns: minmax(360px, 440px) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}

.record {
  display: grid;
  gap: 12px;
}

.record:focus {
  outline: none;
}

.detail {
  display: grid;
  gap: 16px;
  min-width: 0;
}

.said {
  color: var(--good);
  font-weight: 600;
}

.terms {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  border-top: 1px solid var(--edge);
  padding-top: 12px;
}

@media (max-width: 979px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
