<script setup lang="ts">
import { noConnection, type ProblemError } from '@/shared/api/client'
import { onUnmounted, ref } from 'vue'
import { SAY_SO } from '@/shared/api/patience'
import { NSkeleton } from 'naive-ui'
import ProblemNote from './ProblemNote.vue'

/** Stands in for a view whose data is on its way, or did not come. */
defineProps<{ error: ProblemError | null; what: string }>()
defineEmits<{ retry: [] }>()
const unread = {
  ...noConnection,
  detail: 'Nothing of this page has been kept on this device yet. Try again when you are online.',
}
const isLong = ref(false)
const clock = setTimeout(() => (isLong.value = true), SAY_SO)
onUnmounted(() => clearTimeout(clock))
</script>

<template>
  <ProblemNote
    v-if="error"
    :problem="error.problem.code === 'no_connection' ? unread : error.problem"
    :retry-word="error.problem.code === 'not_found' ? '' : 'Try again'"
    @retry="$emit('retry')"
  />
  <div v-else class="panel lines waiting" role="status">
    <span :class="{ unseen: !isLong }">
      Loading {{ what }} …{{ isLong ? ' The connection is slow.' : '' }}
    </span>
    <NSkeleton text width="32%" height="22px" />
    <NSkeleton text :repeat="4" />
  </div>
</template>

<style scoped>
.waiting {
  min-height: 180px;
  align-content: start;
}
</style>
