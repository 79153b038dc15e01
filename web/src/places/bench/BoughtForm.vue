<script setup lang="ts">
import { computed } from 'vue'
import type { Batch, Content, Entry } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import { useDraft } from '@/shared/writing/useDraft'
import { boughtOf } from '../buy/boughtDraft'
import BoughtFields from '../buy/BoughtFields.vue'
import EntryForm from './EntryForm.vue'

/** The correction of what was bought. */
const props = defineProps<{ batch: Batch; correcting: Entry }>()
const emit = defineEmits<{ recorded: [batch: Batch, words: string] }>()

const { kitchen } = useSession()
const name = `${props.batch.code}:correct-${props.correcting.id}`
const { draft, clear } = useDraft(`${kitchen.value?.slug}:${name}`, () => boughtOf(props.correcting.content))
const content = computed<Content>(() => ({ act: 'bought', ...draft }))

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
    word="Correct what was bought"
    :name="name"
    @recorded="recorded"
  >
    <BoughtFields v-model:draft="draft" stem="" />
  </EntryForm>
</template>
