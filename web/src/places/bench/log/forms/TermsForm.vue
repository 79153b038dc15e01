<script setup lang="ts">
import { computed } from 'vue'
import type { Batch, Content, Entry } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useDraft } from '@/shared/writing/useDraft'
import EntryForm from './EntryForm.vue'
import { termsContent, termsOf } from './termsDraft'

/** What the batch is judged by: a portion, a shop's pack beside it, what is left after frying. */
const props = defineProps<{ batch: Batch; act: 'portion' | 'shop_pack' | 'fry'; correcting: Entry | null }>()
const emit = defineEmits<{ recorded: [batch: Batch, words: string] }>()
const { like } = useUnits()

const name = `${props.batch.code}:${props.act}${props.correcting ? `-${props.correcting.id}` : ''}`
const { draft, clear } = useDraft(name, () => termsOf(props.correcting?.content))
const ways = [
  { value: 'slices' as const, word: 'Slices' },
  { value: 'weight' as const, word: 'A weight' },
  { value: 'cooked_weight' as const, word: 'Cooked weight' },
]

const content = computed<Content>(() => termsContent(props.act, draft))
const words = { portion: 'Set the portion', shop_pack: 'Set the shop pack', fry: 'Record the frying test' }

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
    :word="words[act]"
    :name="name"
    @recorded="recorded"
  >
    <template v-if="act === 'shop_pack'">
      <TypedInput v-model="draft.name" label="Which kind" path="name" placeholder="good shop bacon" />
      <TypedInput
        v-model="draft.paid"
        label="Price of the pack"
        path="paid"
        placeholder="6.15"
        inputmode="decimal"
      />
      <TypedInput
        v-model="draft.weight"
        label="Weight of the pack"
        path="weight"
        :placeholder="like('12 oz', '340 g')"
      />
      <TypedInput
        v-model="draft.slices"
        label="Slices in the pack, if counted"
        path="slices"
        placeholder="11"
        inputmode="numeric"
      />
      <TypedInput
        v-model="draft.fry"
        label="Left after frying, %, if tested"
        path="fry"
        placeholder="33"
        inputmode="decimal"
      />
    </template>
    <template v-else-if="act === 'fry'">
      <div class="weights">
        <TypedInput v-model="draft.raw" label="Raw" path="raw" placeholder="112 g" />
        <TypedInput v-model="draft.cooked" label="Cooked" path="cooked" placeholder="47 g" />
      </div>
      <TypedInput
        v-model="draft.fry"
        label="Or percent left"
        path="kept"
        hint="cooked weight ÷ raw weight; the batch uses the mean of all its tests"
        placeholder="42"
        inputmode="decimal"
      />
    </template>
    <template v-else>
      <ChoiceBar v-model="draft.way" label="A portion is" :choices="ways" />
      <TypedInput
        v-if="draft.way === 'slices'"
        v-model="draft.slices"
        label="Slices per portion"
        path="slices"
        placeholder="3"
        inputmode="decimal"
      />
      <TypedInput
        v-else
        v-model="draft.weight"
        label="Weight per portion"
        :path="draft.way"
        :placeholder="like('2 oz', '60 g')"
      />
    </template>
  </EntryForm>
</template>

<style scoped>
.weights {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
