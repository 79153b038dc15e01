<script setup lang="ts">
import TickBox from '@/shared/ui/TickBox.vue'
import { computed } from 'vue'
import type { Batch, Content, Entry } from '@/shared/api/client'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { useDraft } from '@/shared/writing/useDraft'
import EntryForm from './EntryForm.vue'
import { blankTogether, togetherContent, togetherOf, type TogetherDraft } from './togetherDraft'
import UsedRows from './UsedRows.vue'

/** Pieces that come together into one, or that are thrown away. */
const props = defineProps<{ batch: Batch; act: 'merge' | 'discard'; correcting: Entry | null }>()
const emit = defineEmits<{ recorded: [batch: Batch, words: string] }>()

const { like, weightText } = useUnits()
const name = `${props.batch.code}:${props.act}${props.correcting ? `-${props.correcting.id}` : ''}`
const { draft, clear } = useDraft<TogetherDraft>(name, () =>
  props.correcting ? togetherOf(props.correcting.content) : blankTogether(props.act),
)
const pieces = computed(() => {
  const here = [
    ...props.batch.pieces.map((piece) => ({
      mark: piece.mark,
      word: `${piece.mark}, ${weightText(piece.weight)}`,
    })),
    ...props.batch.by_products.map((piece) => ({
      mark: piece.mark,
      word: `${piece.name}, ${weightText(piece.weight)}`,
    })),
  ]
  const gone = draft.marks.filter((mark) => !here.some((piece) => piece.mark === mark))
  return [...gone.map((mark) => ({ mark, word: mark })), ...here]
})
const charges = [
  { value: 'batch' as const, word: 'The other pieces' },
  { value: 'loss' as const, word: 'Nobody: count it as a loss' },
]
const content = computed<Content>(() => togetherContent(props.act, draft))

function recorded(batch: Batch, words: string): void {
  clear()
  emit('recorded', batch, words)
}
</script>

<template>
  <EntryForm
    :batch="batch"
    :content="content"
    :correcting="correcting"
    :word="act === 'merge' ? 'Combine them' : 'Throw them away'"
    :name="name"
    @recorded="recorded"
  >
    <fieldset>
      <legend>{{ act === 'merge' ? 'Which are combined' : 'Which are thrown away' }}</legend>
      <TickBox v-for="piece in pieces" :key="piece.mark" v-model="draft.marks" :value="piece.mark">{{
        piece.word
      }}</TickBox>
    </fieldset>
    <template v-if="act === 'merge'">
      <TypedInput v-model="draft.kind" label="Name of the step" path="kind" placeholder="mix" />
      <div class="pair">
        <TypedInput
          v-model="draft.mark"
          label="Its mark"
          path="into.mark"
          hint="leave empty for the next free one"
        />
        <TypedInput
          v-model="draft.weight"
          label="Weight of all together"
          path="into.weight"
          :placeholder="like('9 lb 2 oz', '4.14 kg')"
        />
      </div>
    </template>
    <template v-else>
      <ChoiceBar v-model="draft.charge" label="Who carries their cost" :choices="charges" />
      <TypedInput v-model="draft.why" label="Why" path="why" placeholder="smelled off" />
    </template>
    <UsedRows v-model:draft="draft" :marks="draft.marks" />
  </EntryForm>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
}

legend {
  font-weight: 600;
  font-size: 14px;
  padding: 0;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1.4fr;
  gap: 8px;
}
</style>
