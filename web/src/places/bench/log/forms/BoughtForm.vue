<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Batch, Content, Entry } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import { useDraft } from '@/shared/writing/useDraft'
import { blankBought, boughtContent, boughtOf } from '@/shared/parts/boughtDraft'
import BoughtFields from '@/shared/parts/BoughtFields.vue'
import ExtraRows from '@/shared/parts/ExtraRows.vue'
import SourceFields from '@/shared/parts/SourceFields.vue'
import EntryForm from './EntryForm.vue'

/** More meat for the batch, bought or a piece of another batch; or the correction of such an entry. */
const props = defineProps<{ batch: Batch; correcting: Entry | null }>()
const emit = defineEmits<{ recorded: [batch: Batch, words: string] }>()

const { isMetric } = useUnits()
const basis = isMetric.value ? 'per_kg' : 'per_lb'
const name = `${props.batch.code}:${props.correcting ? `correct-${props.correcting.id}` : 'lot'}`
const { draft, clear } = useDraft(name, () =>
  props.correcting ? boughtOf(props.correcting.content) : blankBought(basis),
)
type Way = 'bought' | 'batch'
const way = ref<Way>(draft.from_batch ? 'batch' : 'bought')
const ways = [
  { value: 'bought' as Way, word: 'Bought' },
  { value: 'batch' as Way, word: 'From another batch' },
]
const content = computed<Content>(() =>
  boughtContent(way.value === 'batch' ? draft : { ...draft, from_batch: '' }),
)

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
    :word="correcting ? 'Correct what was bought' : 'Add this meat'"
    :name="name"
    @recorded="recorded"
  >
    <ChoiceBar v-if="!correcting" v-model="way" label="The meat was" :choices="ways" />
    <BoughtFields v-if="way === 'bought'" v-model:draft="draft" stem="" />
    <SourceFields v-else v-model:draft="draft" stem="" :without="batch.code" />
    <ExtraRows v-if="way === 'bought'" v-model:draft="draft" stem="" />
  </EntryForm>
</template>
