<script setup lang="ts">
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { momentTyped } from '@/shared/quantity/when'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { type Schemas } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

/** A task planned by hand. */
const props = defineProps<{ code: string; pieces: string[] }>()
const queries = useQueryClient()
const kinds: { value: Schemas['TaskIn']['kind']; word: string }[] = [
  { value: 'turn', word: 'Turn and rub' },
  { value: 'check', word: 'Feel how firm it is' },
  { value: 'taste', word: 'Taste' },
  { value: 'soak', word: 'Soak' },
  { value: 'dry', word: 'Dry uncovered' },
  { value: 'reseason', word: 'Re-season' },
  { value: 'smoke', word: 'Into the smoke' },
  { value: 'weigh', word: 'Weigh' },
  { value: 'other', word: 'Something else' },
]
const kind = ref<Schemas['TaskIn']['kind']>('turn')
const words = ref('')
const when = ref('')
const { state, problem, write } = useKitchenWrite(`${props.code}:task`, '/batches/{code}/tasks', {
  path: () => ({ code: props.code }),
})
function plan(): void {
  if (!when.value) return
  const body = {
    kind: kind.value,
    words: words.value,
    marks: [],
    due_at: momentTyped(when.value),
    minutes: null,
  }
  void write(body, () => {
    words.value = ''
    void queries.invalidateQueries({ queryKey: ['plan'] })
  })
}
</script>

<template>
  <details class="panel">
    <summary>Plan something else</summary>
    <form v-may:cook @submit.prevent="plan">
      <label class="named">
        <span>What</span>
        <select v-model="kind" class="box">
          <option v-for="one in kinds" :key="one.value" :value="one.value">{{ one.word }}</option>
        </select>
      </label>
      <label v-if="kind === 'other'" class="named"
        ><span>In a few words</span><input v-model="words" class="box" maxlength="60"
      /></label>
      <label class="named"><span>When</span><input v-model="when" class="box" type="datetime-local" /></label>
      <ProblemNote v-if="problem" :problem="problem" />
      <button type="submit" class="act" :disabled="!when || state === 'saving'">Plan it</button>
    </form>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 44px;
}

form {
  display: grid;
  gap: 8px;
  padding-top: 8px;
}
</style>
