<script setup lang="ts">
import { computed } from 'vue'
import { hoursText, weekMomentText } from '@/shared/quantity/when'
import type { Meal } from './useMeals'

/** The jobs of a plan as they are counted back: when each begins, its hands, where it lies, what is to spare. */
type Job = Meal['jobs'][number]
const props = defineProps<{ jobs: Job[] }>()
/** "25 min, Smoker" */
const workText = (job: { minutes: number; store: string }): string =>
  [job.minutes ? `${job.minutes} min` : '', job.store].filter(Boolean).join(', ')
/** "By this kitchen's own record: trim, into the cure." */
const basisText = computed(() => {
  const own = props.jobs.filter((job) => job.basis).map((job) => job.words.toLowerCase())
  return own.length ? `By this kitchen’s own record: ${[...new Set(own)].join(', ')}.` : ''
})
/** "5 h to spare, 4 h kept free" of a job; nothing below an hour. */
function spareText(job: Job): string {
  if (job.is_too_long) return '▲ longer than it may lie'
  const spare = job.spare_hours >= 1 ? `${hoursText(job.spare_hours * 3600)} to spare` : ''
  const reserve = job.reserve_hours >= 0.1 ? `${hoursText(job.reserve_hours * 3600)} of it kept free` : ''
  return [spare, reserve].filter(Boolean).join(', ')
}
</script>

<template>
  <section class="panel" aria-label="Counted back">
    <h2>Counted back</h2>
    <ol>
      <li v-for="job in jobs" :key="job.starts + job.kind + job.product">
        <span
          ><b>{{ job.words }}</b
          ><span v-if="job.product" class="quiet small of">{{ job.product }}</span></span
        >
        <span>{{ weekMomentText(job.starts) }}</span>
        <span class="quiet" :title="job.basis">{{ workText(job) }}</span>
        <span class="quiet small">{{ spareText(job) }}</span>
      </li>
    </ol>
    <p v-if="basisText" class="quiet small">{{ basisText }}</p>
  </section>
</template>

<style scoped>
.of {
  margin-left: 8px;
}

ol {
  display: grid;
  gap: 4px;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) 130px minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 10px;
  align-items: baseline;
}

@media (max-width: 620px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
