<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { useUnits } from '@/shared/quantity/useUnits'
import { momentText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useBeginPractice, usePractices } from './usePractice'

/** What can be practiced, how fast, and how it went lately. */
const router = useRouter()
const { data, error, refetch } = usePractices()
const { write, problem, isSaving } = useBeginPractice()
const { money } = useUnits()
const speed = ref(120)
const speeds = [
  [60, 'an hour in a minute'],
  [120, 'an hour in half a minute'],
  [300, 'an hour in 12 seconds'],
  [600, 'an hour in 6 seconds'],
] as const
function begin(lesson: string): void {
  void write({ lesson, speed: speed.value }, ({ id }) =>
    router.push({ name: 'practice-run', params: { id } }),
  )
}
</script>

<template>
  <div class="head">
    <h1>Practice</h1>
    <span class="quiet">a simulated fire; nothing of it enters your books</span>
  </div>
  <LoadState v-if="!data" :error="error" what="the lessons" @retry="refetch()" />
  <div v-else class="two">
    <section class="rows" aria-label="Lessons">
      <SelectBox v-model="speed" class="speed" label="How fast">
        <option v-for="[times, word] in speeds" :key="times" :value="times">{{ word }}</option>
      </SelectBox>
      <ProblemNote v-if="problem" :problem="problem" fields />
      <article v-for="lesson in data.lessons" :key="lesson.key" class="panel lesson">
        <h2>{{ lesson.name }}</h2>
        <p>{{ lesson.why }}</p>
        <p class="quiet small">
          About {{ lesson.hours }} h where nothing goes wrong. Things will go wrong, and nobody says when.
        </p>
        <ActButton v-may:helper first :disabled="isSaving" @click="begin(lesson.key)">
          Start practice
        </ActButton>
      </article>
    </section>
    <section aria-label="Lately">
      <h2>Lately</h2>
      <ul v-if="data.runs.length" class="rows">
        <li v-for="run in data.runs" :key="run.id">
          <RouterLink class="panel row" :to="{ name: 'practice-run', params: { id: run.id } }">
            <b>{{ run.name }}</b>
            <span class="quiet small">{{ momentText(run.begun_at) }}</span>
            <span v-if="run.lost !== null">{{ money(run.lost) }} lost</span>
            <span v-else class="quiet">not done</span>
          </RouterLink>
        </li>
      </ul>
      <p v-else class="panel">No run yet.</p>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(260px, 360px);
  gap: 16px;
  align-items: start;
}

.rows {
  display: grid;
  gap: 10px;
}

.speed {
  max-width: 320px;
}

.lesson {
  display: grid;
  gap: 6px;
  justify-items: start;
}

.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  justify-content: space-between;
  text-decoration: none;
}

@media (max-width: 979px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
