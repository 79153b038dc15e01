<script setup lang="ts">
import RingButton from '@/shared/ui/RingButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import { computed } from 'vue'
import { hoursText, weekMomentText } from '@/shared/quantity/when'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { type MealPage, useMealWrites } from './useMeals'

/** A plan that is on the list beside what was done: each job, and the batch it is made in. */
const props = defineProps<{ page: MealPage }>()
const { naming, ticking, renew } = useMealWrites()
const done = computed(() => props.page.jobs.filter((job) => job.state === 'done').length)
const isSeveral = computed(() => props.page.made.length > 1)
const TWO_DAYS = 2 * 86400
/** "3 h 20", from two days on "4 days". */
const spanText = (seconds: number): string =>
  seconds < TWO_DAYS ? hoursText(seconds) : `${Math.floor(seconds / 86400)} days`
type Job = MealPage['jobs'][number]
/** "Sat 5 Dec, 09:10, 2 h late" */
function factText(job: Job): string {
  if (job.done_at === null) return job.is_late ? '▲ late' : 'to do'
  const apart = (+new Date(job.done_at) - +new Date(job.due_at)) / 1000
  const side = apart > 0 ? 'late' : 'early'
  const off = Math.abs(apart) < 3600 ? '' : `, ${spanText(Math.abs(apart))} ${side}`
  return `✓ ${weekMomentText(job.done_at)}${off}`
}
function name(product: string, batch: string): void {
  void naming.write({ name: props.page.name, product, batch }, renew)
}
const tick = (job: Job): void =>
  void ticking.write({ uid: job.uid, sort: job.state === 'done' ? 'open' : 'done' }, renew)
</script>

<template>
  <section class="panel lines" aria-label="On the list">
    <div class="top">
      <h2>On the list</h2>
      <span class="quiet">{{ done }} of {{ page.jobs.length }} jobs done</span>
    </div>
    <div class="made">
      <SelectBox
        v-for="one in page.made"
        :key="one.product"
        :label="isSeveral ? `${one.product} is made in` : 'Made in batch'"
        :model-value="one.batch"
        @update:model-value="name(one.product, $event)"
      >
        <option value="">none yet: check jobs off here</option>
        <option v-for="code in page.batches" :key="code" :value="code">{{ code }}</option>
      </SelectBox>
    </div>
    <p v-if="page.jobs.some((job) => job.by_batch)" class="quiet small">
      What its batch shows to be done is checked off by itself.
    </p>
    <ProblemNote v-if="naming.problem.value" :problem="naming.problem.value" />
    <ProblemNote v-if="ticking.problem.value" :problem="ticking.problem.value" />
    <ol>
      <li v-for="job in page.jobs" :key="job.uid">
        <RingButton
          :done="job.state === 'done'"
          :disabled="job.by_batch"
          :label="`${job.state === 'done' ? 'Open again' : 'Check off'} ${job.words}${isSeveral ? `, ${job.product}` : ''}`"
          @click="tick(job)"
        />
        <span
          ><b>{{ job.words }}</b
          ><span v-if="isSeveral" class="quiet small of">{{ job.product }}</span></span
        >
        <span class="quiet">planned {{ weekMomentText(job.due_at) }}</span>
        <span :class="{ late: job.is_late }">{{ factText(job) }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.of {
  margin-left: 8px;
}

.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 4px 12px;
}

.made {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}

ol {
  display: grid;
  gap: 2px;
}

li {
  display: grid;
  grid-template-columns: 46px minmax(0, 1.2fr) minmax(0, 1.2fr) minmax(0, 1.4fr);
  gap: 10px;
  align-items: center;
}

.late {
  color: var(--care-ink);
}

@media (max-width: 620px) {
  li {
    grid-template-columns: 46px minmax(0, 1fr);
    padding: 4px 0;
  }

  li > span:nth-of-type(n + 2) {
    grid-column: 2;
  }
}
</style>
