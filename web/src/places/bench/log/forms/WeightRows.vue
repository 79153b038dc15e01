<script setup lang="ts">
import type { Batch } from '@/shared/api/client'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { type StepDraft, weighedRows } from './stepDraft'

/** A weight for each piece; a piece left empty was not in this step. */
const props = defineProps<{ batch: Batch }>()
const draft = defineModel<StepDraft>('draft', { required: true })
const { like, weightText } = useUnits()

function before(mark: string): string {
  const piece = props.batch.pieces.find((one) => one.mark === mark)
  return piece ? `was ${weightText(piece.weight)}; leave empty if not in this step` : ''
}
const pathOf = (mark: string): string =>
  `weights[${weighedRows(draft.value).findIndex((row) => row.mark === mark)}].weight`
</script>

<template>
  <div class="lines">
    <h3>Weights after this step</h3>
    <TypedInput
      v-for="row in draft.weights"
      :key="row.mark"
      v-model="row.weight"
      :label="row.mark === 'lot' ? 'Weight of the whole' : `Weight of ${row.mark}`"
      :path="pathOf(row.mark)"
      :hint="before(row.mark)"
      :placeholder="like('4 lb 6 oz', '1.98 kg')"
    />
  </div>
</template>
