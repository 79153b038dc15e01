<script setup lang="ts">
import TypedInput from '@/shared/ui/TypedInput.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import { ref } from 'vue'
import { refusal, type Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** The small page of the simulated scale: what lies on it, and what troubles it. */
const props = defineProps<{
  code: string
  mark: string
  kind: string
  lay: (body: Schemas['LayIn']) => Promise<void>
}>()
const { like } = useUnits()
const weight = ref('')
const fault = ref('')
const empty = { weight: '', code: '', mark: '', kind: '', trouble: '' as const }

async function put(body: Partial<Schemas['LayIn']>): Promise<void> {
  const problem = await refusal(() => props.lay({ ...empty, ...body }))
  fault.value = problem?.detail ?? ''
}
</script>

<template>
  <FoldAway class="simulated" word="Simulated scale: put something on it">
    <div class="acts">
      <ActButton :disabled="!mark" @click="put({ code, mark, kind })">Put {{ mark }} on it</ActButton>
      <ActButton @click="put({})">Take it off</ActButton>
      <form @submit.prevent="put({ weight })">
        <TypedInput
          v-model="weight"
          label="Weight to put on it"
          quiet-label
          :placeholder="like('5.72 lb', '2.6 kg')"
        />
        <ActButton submit>Put on</ActButton>
      </form>
      <ActButton @click="put({ trouble: 'silent' })">Stop sending</ActButton>
      <ActButton @click="put({ trouble: 'rubbish' })">Send garbage</ActButton>
      <ActButton @click="put({ trouble: 'over' })">Overload</ActButton>
    </div>
    <p v-if="fault" role="alert">{{ fault }}</p>
  </FoldAway>
</template>

<style scoped>
.simulated {
  color: #a9b4b0;
  font-size: 14px;
}

.acts,
form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
