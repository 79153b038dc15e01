<script setup lang="ts">
import { useDraft } from '@/shared/writing/useDraft'
import ActButton from '@/shared/ui/ActButton.vue'
import DateBox from '@/shared/ui/DateBox.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { momentTyped } from '@/shared/quantity/when'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { ref, toRefs } from 'vue'
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
const { draft, clear } = useDraft(`${props.code}:task`, () => ({ words: '', when: '' }))
const { words, when } = toRefs(draft)
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
    clear()
    void queries.invalidateQueries({ queryKey: ['plan'] })
  })
}
</script>

<template>
  <FoldAway class="panel" word="Plan something else">
    <form v-may:cook @submit.prevent="plan">
      <SelectBox v-model="kind" label="What">
        <option v-for="one in kinds" :key="one.value" :value="one.value">{{ one.word }}</option>
      </SelectBox>
      <TypedInput v-if="kind === 'other'" v-model="words" label="In a few words" maxlength="60" />
      <DateBox v-model="when" label="When" kind="datetime-local" />
      <ProblemNote v-if="problem" :problem="problem" />
      <ActButton submit :disabled="!when || state === 'saving'">Plan it</ActButton>
    </form>
  </FoldAway>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  padding-top: 8px;
}
</style>
