<script setup lang="ts">
import { NButton } from 'naive-ui'
import type { Problem } from '@/shared/api/client'
import type { WriteState } from '@/shared/writing/useWrite'
import { useOnline } from '@vueuse/core'
import ProblemNote from './ProblemNote.vue'

/** The one button of a form that says what it will record, and how that went. */
defineProps<{ word: string; state: WriteState; problem: Problem | null; cancelWord?: string }>()
defineEmits<{ retry: []; cancel: [] }>()
const isOnline = useOnline()
</script>

<template>
  <div class="save">
    <ProblemNote
      v-if="problem"
      :problem="problem"
      :retry-word="state === 'failed' ? 'Try again' : ''"
      @retry="$emit('retry')"
    />
    <p v-if="!isOnline && !problem" class="quiet small" role="status">
      No connection: this form is not sent by itself. What you typed stays here; save it when you are back
      online.
    </p>
    <div class="buttons">
      <NButton type="primary" attr-type="submit" :loading="state === 'saving'" :disabled="state === 'saving'">
        {{ state === 'saving' ? 'Saving …' : word }}
      </NButton>
      <NButton v-if="cancelWord" attr-type="button" @click="$emit('cancel')">{{ cancelWord }}</NButton>
    </div>
  </div>
</template>

<style scoped>
.save {
  display: grid;
  gap: 10px;
}

.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.buttons > :first-child {
  flex: 1 1 200px;
}
</style>
