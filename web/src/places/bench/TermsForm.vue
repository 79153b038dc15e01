<script setup lang="ts">
import { computed } from 'vue'
import type { Batch, Content, Entry } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useDraft } from '@/shared/writing/useDraft'
import EntryForm from './EntryForm.vue'

/** What the batch is judged by: a portion, or the shop's pack beside it. */
const props = defineProps<{ batch: Batch; act: 'portion' | 'shop_pack'; correcting: Entry | null }>()
const emit = defineEmits<{ recorded: [batch: Batch, words: string] }>()

const { kitchen } = useSession()
const name = `${props.batch.code}:${props.act}${props.correcting ? `-${props.correcting.id}` : ''}`
const empty = { way: 'slices' as 'slices' | 'weight', name: '', paid: '', weight: '', slices: '' }
const { draft, clear } = useDraft(`${kitchen.value?.slug}:${name}`, blank)
const ways = [
  { value: 'slices' as const, word: 'So many slices' },
  { value: 'weight' as const, word: 'A weight' },
]

function blank(): typeof empty {
  const shown = props.correcting?.content
  if (shown?.act === 'shop_pack') {
    const { name: kind, paid, weight, slices } = shown
    return { ...empty, name: kind, paid, weight, slices }
  }
  if (shown?.act !== 'portion') return { ...empty }
  return { ...empty, way: shown.weight ? 'weight' : 'slices', weight: shown.weight, slices: shown.slices }
}

const content = computed<Content>(() => {
  const { way, name: kind, paid, weight, slices } = draft
  if (props.act === 'shop_pack') return { act: 'shop_pack', name: kind, paid, weight, slices }
  return way === 'slices' ? { act: 'portion', slices, weight: '' } : { act: 'portion', slices: '', weight }
})

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
    :word="act === 'portion' ? 'Set the portion' : 'Set the shop pack'"
    :name="name"
    @recorded="recorded"
  >
    <template v-if="act === 'shop_pack'">
      <TypedInput v-model="draft.name" label="Which kind" path="name" placeholder="good shop kind" />
      <TypedInput
        v-model="draft.paid"
        label="Price of the pack"
        path="paid"
        placeholder="6.15"
        inputmode="decimal"
      />
      <TypedInput v-model="draft.weight" label="Weight of the pack" path="weight" placeholder="12 oz" />
      <TypedInput
        v-model="draft.slices"
        label="Slices in it, if counted"
        path="slices"
        placeholder="11"
        inputmode="numeric"
      />
    </template>
    <template v-else>
      <ChoiceBar v-model="draft.way" label="A portion is" :choices="ways" />
      <TypedInput
        v-if="draft.way === 'slices'"
        v-model="draft.slices"
        label="Slices"
        path="slices"
        placeholder="3"
        inputmode="decimal"
      />
      <TypedInput v-else v-model="draft.weight" label="Weight" path="weight" placeholder="2 oz" />
    </template>
  </EntryForm>
</template>
