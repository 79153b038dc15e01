<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import { type Problem, ProblemError, type Schemas } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useCommand } from './useFires'
import { useUnits } from '@/shared/quantity/useUnits'

/** A cooker with what it reads now, and the panel of a simulated one. */
const props = defineProps<{ cooker: Schemas['CookerOut']; unit: 'F' | 'C' }>()
const { figure } = useUnits()
const command = useCommand(computed(() => props.cooker.name))
const problem = ref<Problem | null>(null)
const words = ref('')
/** What is tried most often, in words and in the cooker's own. */
const touches = [
  ['Two pieces, 40 and 55 mm', ['CLEAR', 'MEAT 1 40', 'MEAT 2 55', 'PROGRAM 130/60 180/120 225']],
  ['Real time', ['SPEED 1']],
  ['60 times', ['SPEED 60']],
  ['600 times', ['SPEED 600']],
  ['Fire low', ['FIRE low']],
  ['Fire good', ['FIRE good']],
  ['Swap probes 1 and 2', ['SWAP 1 2']],
  ['Pull probe 1 out', ['PULL 1']],
  ['Push probe 1 in', ['PUSH 1']],
  ['Wrap 2', ['WRAP 2']],
  ['Both into ice', ['ICE 1', 'ICE 2']],
  ['Both into the fridge', ['FRIDGE 1', 'FRIDGE 2']],
] as const

async function send(commands: readonly string[]): Promise<void> {
  problem.value = null
  try {
    for (const one of commands) await command(one)
    words.value = ''
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    problem.value = error.problem
  }
}
</script>

<template>
  <section class="panel card" :aria-label="`Cooker ${cooker.name}`">
    <h2>{{ cooker.name }}</h2>
    <p v-if="cooker.is_heard" class="reads">
      <span
        >air <b>{{ figure(cooker.air ?? '–') }}</b></span
      >
      <span v-for="(value, probe) in cooker.probes" :key="probe"
        >probe {{ probe }} <b>{{ figure(value) }}</b></span
      >
      <span class="quiet">°{{ unit }}</span>
    </p>
    <p v-else class="quiet">Says nothing now.</p>
    <FoldAway word="Simulated cooker">
      <div class="touches">
        <ActButton v-for="[label, commands] in touches" :key="label" small @click="send(commands)">
          {{ label }}
        </ActButton>
      </div>
      <form v-may:cook @submit.prevent="send([words])">
        <TypedInput v-model="words" label="In its own words" placeholder="OFFSET 1 5" />
        <ActButton small submit :disabled="!words.trim()">Send</ActButton>
      </form>
      <ProblemNote v-if="problem" :problem="problem" />
    </FoldAway>
  </section>
</template>

<style scoped>
.card {
  display: grid;
  gap: 6px;
}

.reads {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}

.reads b {
  font-size: 20px;
}

.touches {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 6px 0 10px;
}

form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: end;
}
</style>
