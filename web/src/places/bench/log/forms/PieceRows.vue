<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { computed } from 'vue'
import type { Batch } from '@/shared/api/client'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import RemoveButton from '@/shared/ui/RemoveButton.vue'
import { freeMarks, nextMark, type StepDraft } from './stepDraft'

/** What stays of a cut: one or more pieces, each with its mark and weight, sliced ones with their slices. */
const props = defineProps<{ batch: Batch; fixedPiece: boolean }>()
const draft = defineModel<StepDraft>('draft', { required: true })
const { like, weightText } = useUnits()

const slicing = computed(() => draft.value.kind === 'slice')
const choices = computed(() =>
  props.batch.pieces.map((piece) => ({
    value: piece.mark,
    word: `${piece.mark === 'lot' ? 'Whole' : piece.mark}, ${weightText(piece.weight)}`,
  })),
)
const whole = computed({
  get: () => draft.value.piece,
  set: (mark: string) => {
    draft.value.piece = mark
    const free = freeMarks(mark, props.batch)
    draft.value.pieces.forEach((row, index) => (row.mark = free[index] ?? ''))
  },
})
const add = (): void => {
  draft.value.pieces.push({ mark: nextMark(draft.value, props.batch), weight: '', slices: '' })
}
</script>

<template>
  <div class="lines">
    <ChoiceBar
      v-if="!fixedPiece && choices.length > 1"
      v-model="whole"
      :label="slicing ? 'Which piece was sliced' : 'Which piece was cut'"
      :choices="choices"
    />
    <h3>{{ slicing ? 'Sliced' : 'What stays' }}</h3>
    <div v-for="(row, index) in draft.pieces" :key="index" class="row" :class="{ slicing }">
      <TypedInput v-model="row.mark" label="Mark" :path="`pieces[${index}].mark`" />
      <TypedInput
        v-model="row.weight"
        :label="slicing ? 'Sliced weight' : `Weight of ${row.mark || 'the piece'}`"
        :path="`pieces[${index}].weight`"
        :placeholder="like('4 lb 6 oz', '1.98 kg')"
      />
      <TypedInput
        v-if="slicing"
        v-model="row.slices"
        label="Slices"
        :path="`pieces[${index}].slices`"
        placeholder="88"
        inputmode="numeric"
      />
      <RemoveButton
        v-if="draft.pieces.length > 1"
        :label="`Remove piece ${row.mark}`"
        @remove="draft.pieces.splice(index, 1)"
      />
    </div>
    <ActButton small @click="add">
      {{ slicing ? 'Add another sliced piece' : 'Split: add a piece' }}
    </ActButton>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr) 36px;
  gap: 8px;
  width: 100%;
}

.row.slicing {
  grid-template-columns: 76px minmax(0, 1fr) 84px 36px;
}
</style>
