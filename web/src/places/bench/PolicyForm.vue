<script setup lang="ts">
import { computed } from 'vue'
import type { Batch, Content, Entry, Policy } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useDraft } from '@/shared/writing/useDraft'
import EntryForm from './EntryForm.vue'

/** The correction of what this batch counts; it is set on the verdict. */
const props = defineProps<{ batch: Batch; correcting: Entry | null }>()
const emit = defineEmits<{ recorded: [batch: Batch, words: string] }>()
const { kitchen } = useSession()
const name = `${props.batch.code}:policy-${props.correcting?.id}`
const { draft, clear } = useDraft<Policy>(`${kitchen.value?.slug}:${name}`, () => {
  const shown = props.correcting?.content
  return { ...(shown?.act === 'policy' ? shown : props.batch.policy) }
})
const content = computed<Content>(() => ({ ...draft, act: 'policy' }))
const switches = [
  { key: 'by_products' as const, word: 'What came off is credited' },
  { key: 'fuel' as const, word: 'Fuel' },
  { key: 'packaging' as const, word: 'Packaging' },
  { key: 'overhead' as const, word: 'Overhead' },
]

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
    <TypedInput v-model="draft.labour_rate" label="An hour of work is worth" path="labour_rate" />
    <label v-for="one in switches" :key="one.key" class="switch">
      <input v-model="draft[one.key]" type="checkbox" /> {{ one.word }}
    </label>
  </EntryForm>
</template>

<style scoped>
.switch {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 44px;
}

.switch input {
  width: 20px;
  height: 20px;
  accent-color: var(--ink);
}
</style>
