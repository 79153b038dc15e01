<script setup lang="ts">
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
  <details class="simulated">
    <summary>Simulated scale: put something on it</summary>
    <div class="acts">
      <button type="button" :disabled="!mark" @click="put({ code, mark, kind })">Put {{ mark }} on it</button>
      <button type="button" @click="put({})">Take it off</button>
      <form @submit.prevent="put({ weight })">
        <input v-model="weight" aria-label="Weight to put on it" :placeholder="like('5.72 lb', '2.6 kg')" />
        <button type="submit">Put on</button>
      </form>
      <button type="button" @click="put({ trouble: 'silent' })">Stop sending</button>
      <button type="button" @click="put({ trouble: 'rubbish' })">Send garbage</button>
      <button type="button" @click="put({ trouble: 'over' })">Overload</button>
    </div>
    <p v-if="fault" role="alert">{{ fault }}</p>
  </details>
</template>

<style scoped>
.simulated {
  color: #a9b4b0;
  font-size: 14px;
}

summary {
  cursor: pointer;
  min-height: 44px;
  display: flex;
  align-items: center;
}

.acts,
form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

button,
input {
  min-height: 44px;
  padding: 0 10px;
  border: 1px solid #56615f;
  border-radius: 4px;
  background: #1d2528;
  color: #dfe5e2;
  font: inherit;
}

input {
  width: 92px;
}
</style>
