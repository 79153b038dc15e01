<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { computed, reactive, toRef, watch } from 'vue'
import type { Batch, Entry } from '@/shared/api/client'
import { useCures, usePieces } from '@/shared/api/useBench'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import NotOnBill from '@/shared/ui/NotOnBill.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useDraft } from '@/shared/writing/useDraft'
import CutOffRows from './CutOffRows.vue'
import EntryForm from './EntryForm.vue'
import PieceRows from './PieceRows.vue'
import {
  blankStep,
  contentOf,
  draftOf,
  fitPieces,
  isCut,
  kindsFor,
  isHeating,
  OWN,
  type Heat,
  type StepDraft,
  weighedRows,
} from './stepDraft'
import { recordWord } from '@/shared/parts/stepWords'
import UsedRows from './UsedRows.vue'
import WeightRows from './WeightRows.vue'

/**
 * A step of the chain: what was done, weighed, used. New, or as the correction of one.
 * What else EntryForm tells (trying, stale, cancel) is listened to through it.
 */
const props = defineProps<{ batch: Batch; correcting: Entry | null }>()
const emit = defineEmits<{ recorded: [batch: Batch, words: string] }>()

const name = props.correcting
  ? `${props.batch.code}:correct-${props.correcting.id}`
  : `${props.batch.code}:step`
const { draft, clear } = useDraft<StepDraft>(name, () =>
  props.correcting ? draftOf(props.correcting.content) : blankStep(props.batch),
)
if (!props.correcting) fitPieces(draft, props.batch)
watch(
  () => props.batch.seen,
  () => props.correcting || fitPieces(draft, props.batch),
)

const { data: cures } = useCures(toRef(() => props.batch.code))
/** What was weighed out at the desk and is on no line yet. */
const charges = computed(() =>
  draft.kind === 'cure' && !props.correcting && !draft.used.some((row) => row.group === 'cure')
    ? (cures.value?.charges ?? [])
    : [],
)
function addCharges(): void {
  draft.used.push(...charges.value.map((one) => ({ ...one, pieces: [...one.pieces] })))
}

const { like } = useUnits()
const { data: pieces } = usePieces(toRef(() => props.batch.code))
/** How a smoke of the pieces at hand is expected to be, by what they are to become. */
const expected = computed<Heat>(() => {
  const marks = isCut(draft) ? [draft.piece] : weighedRows(draft).map((row) => row.mark)
  const mine = (pieces.value?.pieces ?? []).filter((piece) => !marks.length || marks.includes(piece.mark))
  return mine.length && mine.every((piece) => piece.smoke === 'cold') ? 'cold' : 'hot'
})
const heat = computed<Heat>({
  get: () => draft.heat || expected.value,
  set: (to) => (draft.heat = to),
})
const heats = [
  { value: 'hot' as const, word: 'Hot' },
  { value: 'cold' as const, word: 'Cold: stays raw' },
]
const content = computed(() => contentOf(draft, expected.value))
const choices = kindsFor(props.correcting?.act ?? null)
const ownActs = [
  { value: 'weigh' as const, word: 'Weighed' },
  { value: 'split' as const, word: 'Cut' },
]
const word = computed(() => {
  const kind = draft.kind === OWN ? draft.ownWord.trim() || 'step' : draft.kind
  return props.correcting ? `Correct this step: ${kind}` : recordWord(kind)
})

function recorded(batch: Batch, words: string): void {
  clear()
  if (!props.correcting) Object.assign(draft, reactive(blankStep(batch)))
  emit('recorded', batch, words)
}
</script>

<template>
  <EntryForm
    :batch="batch"
    :content="content"
    :correcting="correcting"
    :word="word"
    :name="name"
    @recorded="recorded"
  >
    <ChoiceBar v-model="draft.kind" label="What was done" :choices="choices" />
    <template v-if="draft.kind === OWN">
      <TypedInput v-model="draft.ownWord" label="Name of the step" path="kind" placeholder="render" />
      <ChoiceBar v-if="!correcting" v-model="draft.ownAct" label="The pieces were" :choices="ownActs" />
    </template>
    <template v-if="isCut(draft)">
      <PieceRows v-model:draft="draft" :batch="batch" :fixed-piece="correcting !== null" />
      <CutOffRows v-model:draft="draft" />
    </template>
    <WeightRows v-else v-model:draft="draft" :batch="batch" />
    <ChoiceBar v-if="draft.kind === 'smoke'" v-model="heat" label="The smoke was" :choices="heats" />
    <TypedInput
      v-if="isHeating(draft.kind)"
      v-model="draft.inside"
      label="Highest inside, if read"
      path="inside"
      :placeholder="like('152 °F', '67 °C')"
    />
    <UsedRows v-model:draft="draft" :marks="isCut(draft) ? [] : weighedRows(draft).map((row) => row.mark)" />
    <ActButton v-if="charges.length" small @click="addCharges"> Add the cure weighed out </ActButton>
    <NotOnBill v-if="draft.kind === 'cure'" :names="cures?.unpriced" />
    <p v-if="draft.kind === 'cure'" class="caution">
      Curing salt is poisonous by the spoonful: weigh it on its own and lock it away. Amounts are only
      recorded here; the cure desk checks them. Follow your local food authority’s limits.
      <span class="quiet">Common practice.</span>
    </p>
  </EntryForm>
</template>

<style scoped>
.caution {
  border-left: 6px solid var(--care);
  background: var(--care-ground);
  padding: 8px 12px;
  font-size: 14px;
}
</style>
