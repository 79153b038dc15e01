<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import { computed, toRef } from 'vue'
import { useBatch, useToday } from '@/shared/api/useBatch'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import type { BoughtDraft } from './boughtDraft'

/** A piece of another batch as a lot of this one: which batch, which piece, how much of it. */
const props = defineProps<{ stem: string; without: string }>()
const draft = defineModel<BoughtDraft>('draft', { required: true })
const { data: today } = useToday()
const { like, weightText } = useUnits()
const batches = computed(() =>
  [...(today.value?.finished ?? []), ...(today.value?.under_way ?? [])].filter(
    (batch) => batch.code !== props.without,
  ),
)
const { data: source } = useBatch(toRef(() => draft.value.from_batch || props.without))
const pieces = computed(() => {
  if (!source.value || source.value.code !== draft.value.from_batch) return []
  const mains = source.value.pieces.map((piece) => ({
    mark: piece.mark,
    word: `${piece.mark}, ${weightText(piece.weight)}`,
  }))
  const offs = source.value.by_products.map((piece) => ({
    mark: piece.mark,
    word: `${piece.name}, ${weightText(piece.weight)}`,
  }))
  return [...mains, ...offs]
})
</script>

<template>
  <div class="lines">
    <SelectBox v-model="draft.from_batch" label="From batch">
      <option value="">choose one</option>
      <option v-for="batch in batches" :key="batch.code" :value="batch.code">
        {{ batch.code }} {{ batch.name }}
      </option>
    </SelectBox>
    <SelectBox v-if="draft.from_batch" v-model="draft.from_piece" label="Piece">
      <option value="">choose one</option>
      <option v-for="piece in pieces" :key="piece.mark" :value="piece.mark">{{ piece.word }}</option>
    </SelectBox>
    <TypedInput v-model="draft.cut" label="What it is" :path="`${stem}cut`" placeholder="cured jowl" />
    <TypedInput
      v-model="draft.from_weight"
      label="How much of it"
      :path="`${stem}source.weight`"
      hint="leave empty for all of it"
      :placeholder="like('2 lb', '1 kg')"
    />
  </div>
</template>
