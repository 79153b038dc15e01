<script setup lang="ts">
import type { ProblemError } from '@/shared/api/client'
import ProblemNote from './ProblemNote.vue'

/** Stands in for a view whose data is on its way, or did not come. */
defineProps<{ error: ProblemError | null; what: string }>()
defineEmits<{ retry: [] }>()
</script>

<template>
  <ProblemNote
    v-if="error"
    :problem="error.problem"
    :retry-word="error.problem.code === 'not_found' ? '' : 'Try again'"
    @retry="$emit('retry')"
  />
  <div v-else class="panel waiting" role="status">Loading {{ what }} …</div>
</template>

<style scoped>
.waiting {
  min-height: 180px;
  display: grid;
  place-items: center;
  color: var(--quiet);
}
</style>
