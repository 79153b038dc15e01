<script setup lang="ts">
import DateBox from '@/shared/ui/DateBox.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import { momentTyped } from '@/shared/quantity/when'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, nextTick, ref, watch } from 'vue'
import {
  api,
  type Batch,
  type Content,
  type Entry,
  type BrieflyRecorded,
  type Recorded,
  type Schemas,
  take,
} from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import { useDraft } from '@/shared/writing/useDraft'
import { usePreview } from '@/shared/writing/usePreview'
import { useWrite } from '@/shared/writing/useWrite'
import WhatItDoes from './WhatItDoes.vue'

/** The shell of every entry: previews what it would do, records it under one key, keeps what is typed. */
const props = defineProps<{
  batch: Batch
  content: Content
  correcting: Entry | null
  /** What the button says. */
  word: string
  /** Keeps this form's draft apart from others. */
  name: string
}>()
const emit = defineEmits<{ trying: []; recorded: [batch: Batch, words: string]; stale: []; cancel: [] }>()

type Body = Schemas['EntryIn']
const { kitchen } = useSession()
const place = computed(() => ({ kitchen_slug: kitchen.value?.slug ?? '', code: props.batch.code }))
const { draft, clear } = useDraft(`${props.name}:head`, () => ({
  reason: '',
  when: '',
}))
const form = ref<HTMLFormElement | null>(null)

const body = computed<Body>(() => ({
  content: props.content,
  seen: props.batch.seen,
  corrects: props.correcting?.id ?? null,
  reason: draft.reason,
  happened_at: draft.when ? momentTyped(draft.when) : null,
}))

const { preview, forget } = usePreview(props.name, body, (now) =>
  take(
    api.POST('/api/kitchens/{kitchen_slug}/previews/batches/{code}/entries', {
      params: { path: place.value },
      body: now,
    }),
  ),
)
const { state, problem, write, retry } = useWrite<Body, Recorded | BrieflyRecorded>(
  props.name,
  (sent, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/entries', {
        params: { path: place.value, header: { 'Idempotency-Key': key } },
        body: sent,
      }),
    ),
  () => [props.content, draft],
)
provideFormFacts({ preview, problem })
const whenFault = computed(
  () =>
    [...(problem.value?.fields ?? []), ...(preview.value?.problems ?? [])].find(
      (one) => one.path === 'happened_at',
    )?.message,
)
watch(problem, async (now) => {
  if (now?.code === 'moved_on') emit('stale')
  await nextTick()
  const wrong = form.value?.querySelector<HTMLElement>('[aria-invalid="true"]')
  if (wrong) wrong.focus()
  else form.value?.querySelector('[role="alert"]')?.scrollIntoView({ block: 'center' })
})

const button = computed(() => (problem.value?.code === 'moved_on' ? `${props.word} anyway` : props.word))

function send(sent: Body, words: string): void {
  emit('trying')
  void write(sent, (answer) => {
    clear()
    // at once, not when the empty form has been asked about: the page would move under the next touch
    forget()
    if ('batch' in answer) emit('recorded', answer.batch, words)
  })
}
const takeBack = (): void => send({ ...body.value, content: { act: 'withdraw' } }, 'Canceled')
const canTakeBack = computed(() => props.correcting !== null && props.correcting.sequence > 1)
const stepActs = new Set(['split', 'weigh', 'merge', 'discard'])
</script>

<template>
  <form
    ref="form"
    v-may:helper
    class="entry"
    novalidate
    @submit.prevent="send(body, correcting ? 'Corrected' : 'Recorded')"
  >
    <slot />
    <TypedInput
      v-if="correcting"
      v-model="draft.reason"
      label="What was wrong"
      path="reason"
      hint="The wrong entry stays in the log beside this one."
    />
    <FoldAway class="when" :word="correcting ? 'Wrong day or time?' : 'Done earlier?'">
      <DateBox v-model="draft.when" label="Day and time" kind="datetime-local" />
      <p v-if="whenFault" class="care" role="alert">{{ whenFault }}</p>
    </FoldAway>
    <WhatItDoes :preview="preview" :is-step="stepActs.has(content.act)" />
    <SaveBar
      :word="button"
      :state="state"
      :problem="problem"
      :cancel-word="correcting ? 'Cancel' : ''"
      @retry="retry"
      @cancel="$emit('cancel')"
    />
    <ActButton v-if="canTakeBack" small :disabled="state === 'saving'" @click="takeBack">
      Cancel this entry
    </ActButton>
  </form>
</template>

<style scoped>
.entry {
  display: grid;
  gap: 10px;
}
</style>
