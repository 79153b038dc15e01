<script setup lang="ts">
import RingButton from '@/shared/ui/RingButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed } from 'vue'
import { momentTyped, todayHere, weekMomentText } from '@/shared/quantity/when'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useMeals, useMealWrites } from './plan/useMeals'

/** Jobs of plans that are due by tomorrow night, ticked off with one touch. */
const { data } = useMeals()
const { ticking, renew } = useMealWrites()
const end = +new Date(momentTyped(`${todayHere()}T23:59:59`)) + 864e5
const due = computed(() =>
  (data.value?.jobs ?? []).filter((job) => job.state === 'open' && +new Date(job.due_at) <= end),
)
const tick = (uid: string): void => void ticking.write({ uid, sort: 'done' }, renew)
</script>

<template>
  <section v-if="due.length" class="panel lines" aria-label="Jobs of plans">
    <h2>Plans</h2>
    <ul class="lines">
      <li v-for="job in due" :key="job.uid">
        <RingButton v-may:helper :label="`Check off ${job.words}, ${job.meal}`" @click="tick(job.uid)" />
        <span>
          <b>{{ job.words }}</b><br />
          <RouterLink :to="{ name: 'plan', params: { name: job.meal } }">{{ job.meal }}</RouterLink><span
            v-if="job.product"
            class="quiet small"
            >, {{ job.product }}</span
          >
          <span class="quiet small" :class="{ late: job.is_late }">
            {{ job.is_late ? '▲ late: ' : '' }}{{ weekMomentText(job.due_at)
            }}{{ job.minutes ? `, ${job.minutes} min` : '' }}</span
          >
        </span>
      </li>
    </ul>
    <ProblemNote v-if="ticking.problem.value" :problem="ticking.problem.value" />
  </section>
</template>

<style scoped>
section {
  margin-top: 12px;
}

li {
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
}

.late {
  color: var(--care-ink);
}
</style>
