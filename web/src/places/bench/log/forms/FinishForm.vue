<script setup lang="ts">
import type { Batch, Content, Entry } from '@/shared/api/client'
import EntryForm from './EntryForm.vue'

/** The batch is done though nothing more is sliced: pulled, dried, served whole. */
defineProps<{ batch: Batch; correcting: Entry | null }>()
defineEmits<{ recorded: [batch: Batch, words: string] }>()
const content: Content = { act: 'finish' }
</script>

<template>
  <EntryForm
    :batch="batch"
    :content="content"
    :correcting="correcting"
    word="Mark as finished"
    :name="`${batch.code}:finish`"
    @recorded="(now, words) => $emit('recorded', now, words)"
  >
    <p>
      Use this when a batch is done without being sliced: pulled, dried, or served whole. Its price then
      counts as final, and forecasts learn from it. A later step opens it again.
    </p>
  </EntryForm>
</template>
