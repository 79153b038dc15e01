<script setup lang="ts">
import { toRef } from 'vue'
import LoadState from '@/shared/ui/LoadState.vue'
import FireBody from '@/places/fire/tend/FireBody.vue'
import PracticeEnd from './PracticeEnd.vue'
import { useRun } from './usePractice'

/** A practice run as it goes on, and how it ended. */
const props = defineProps<{ id: number }>()
const { data: run, error, refetch, act, problem, isSaving, retryAct } = useRun(toRef(props, 'id'))
</script>

<template>
  <LoadState v-if="!run" :error="error" what="the practice" @retry="refetch()" />
  <template v-else>
    <p class="banner">
      Practice, {{ run.speed }} times as fast as a real fire. Nothing of it enters your books.
      <RouterLink :to="{ name: 'practice' }">Other lessons</RouterLink>
    </p>
    <PracticeEnd v-if="run.verdict" :verdict="run.verdict" :unit="run.live.unit" />
    <FireBody
      :live="run.live"
      :is-saving="isSaving"
      :problem="problem"
      plain
      @happened="act($event)"
      @retry="retryAct"
    >
      <template #side>
        <p v-if="run.live.out_at && !run.verdict" class="panel">
          It is out. Choose <b>Done</b> to see what it cost.
        </p>
      </template>
    </FireBody>
  </template>
</template>

<style scoped>
.banner {
  padding: 8px 14px;
  margin-bottom: 10px;
  border: 2px dashed var(--ink);
  border-radius: 5px;
}
</style>
