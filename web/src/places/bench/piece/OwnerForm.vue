<script setup lang="ts">
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { ref } from 'vue'
import type { Problem } from '@/shared/api/client'
import SaveBar from '@/shared/ui/SaveBar.vue'
import type { WriteState } from '@/shared/writing/useWrite'

/** Whose the chosen pieces are. */
defineProps<{ count: number; owners: string[]; state: WriteState; problem: Problem | null }>()
const emit = defineEmits<{ set: [owner: string]; retry: [] }>()
const owner = ref('')
const pieceWord = (count: number): string => (count === 1 ? '1 piece' : `${count} pieces`)
</script>

<template>
  <form v-may:cook class="panel lines" aria-label="Owner" @submit.prevent="emit('set', owner.trim())">
    <h2>Whose are they?</h2>
    <p v-if="!count" class="quiet">Choose pieces in the table, then note their owner.</p>
    <template v-else>
      <TypedInput v-model="owner" :label="`Owner of ${pieceWord(count)}`" :suggestions="owners" required />
      <SaveBar
        :word="`Save for ${pieceWord(count)}`"
        :state="state"
        :problem="problem"
        @retry="emit('retry')"
      />
    </template>
  </form>
</template>
