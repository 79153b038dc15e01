<script setup lang="ts">
import { computed } from 'vue'
import type { Batch, Content, Entry, Policy } from '@/shared/api/client'
import PolicyFields from '@/shared/ui/PolicyFields.vue'
import { useDraft } from '@/shared/writing/useDraft'
import EntryForm from './EntryForm.vue'

/** The correction of what this batch counts; it is set on the verdict. */
const props = defineProps<{ batch: Batch; correcting: Entry | null }>()
const emit = defineEmits<{ recorded: [batch: Batch, words: string] }>()
const name = `${props.batch.code}:policy-${props.correcting?.id}`
const { draft, clear } = useDraft<Policy>(name, () => {
  const shown = props.correcting?.content
  return { ...(shown?.act === 'policy' ? shown : props.batch.policy) }
})
const content = computed<Content>(() => ({ ...draft, act: 'policy' }))

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
    word="Correct what is counted"
    :name="name"
    @recorded="recorded"
  >
    <PolicyFields v-model:policy="draft" />
  </EntryForm>
</template>
