<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useSlug } from '@/shared/api/useBatch'
import { useUnits } from '@/shared/quantity/useUnits'
import { hoursText, longDayText, weekMomentText } from '@/shared/quantity/when'
import DropPanel from '@/shared/ui/DropPanel.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TwoColumns from '@/shared/ui/TwoColumns.vue'
import LanesDrawing from '@/places/today/LanesDrawing.vue'
import MealForm from './MealForm.vue'
import OddsDrawing from './OddsDrawing.vue'
import PlanSide from './PlanSide.vue'
import {
  blankMeal,
  isAskable,
  isoDay,
  type MealDraft,
  type MealIn,
  useMeal,
  useMealPreview,
  useMeals,
  useMealWrites,
} from './useMeals'

/** One plan: from what is to be served back to what to buy and when to begin, and whether it fits. */
const props = defineProps<{ name: string; product?: string }>()
const router = useRouter()
const kitchen_slug = useSlug()
const { weightText } = useUnits()
const { data: options, error, refetch } = useMeals()
const { data: page, error: pageError } = useMeal(toRef(props, 'name'))
/** A new plan; of a product, where one asks for more of it from the larder. */
function first(): MealDraft {
  const { product } = props
  const wants = product ? [{ sort: 'product' as const, name: product, amount: '' }] : blankMeal().wants
  return { ...blankMeal(), wants }
}
const draft = ref<MealDraft>(first())
const isChanged = ref(props.name === '')
watch(
  page,
  (now) => {
    if (now && !isChanged.value) draft.value = { ...blankMeal(), ...now.input }
  },
  { immediate: true },
)
const asking = useMealPreview(() => (isAskable(draft.value) ? draft.value : null))
const plan = computed(() => (isChanged.value ? asking.last.value : (page.value?.plan ?? asking.last.value)))
const { saving, listing, renew } = useMealWrites(() => draft.value)
const isNew = computed(() => props.name === '')
const title = computed(() => draft.value.name || 'A new plan')
const about = computed(() => {
  const wants = draft.value.wants.filter((want) => want.name).map((want) => `${want.amount} ${want.name}`)
  const day = longDayText(new Date(`${draft.value.day}T12:00`))
  return `${wants.join(', ')} on ${day} at ${draft.value.at}${draft.value.way ? `, by “${draft.value.way}”` : ''}`
})
const now = new Date().toISOString()
const short: Record<string, string> = { rest: 'rinse, dry', cook: 'smoke', dry: 'hang', age: 'hang' }
const hands = computed(() =>
  (plan.value?.jobs ?? []).map((job) => ({ at: job.starts, words: short[job.kind] ?? job.kind })),
)
/** "25 min, Smoker" */
const workText = (job: { minutes: number; store: string }): string =>
  [job.minutes ? `${job.minutes} min` : '', job.store].filter(Boolean).join(', ')
const wanted = computed(() =>
  (plan.value?.needed ?? [])
    .map((one) => `${one.product}: ${weightText(one.wanted)} wanted, ${weightText(one.here)} here`)
    .join('; '),
)
/** "5 h to spare" of a job; nothing below an hour. */
const spareText = (hours: number): string => (hours >= 1 ? `${hoursText(hours * 3600)} to spare` : '')
function change(by: Partial<MealDraft>): void {
  isChanged.value = true
  Object.assign(draft.value, by)
}
function move(days: number): void {
  const day = new Date(`${draft.value.day}T12:00`)
  day.setDate(day.getDate() + days)
  change({ day: isoDay(day) })
}
function save(): void {
  void saving.write({ ...draft.value }, () => {
    isChanged.value = false
    renew()
    if (props.name !== draft.value.name)
      void router.push({ name: 'plan', params: { name: draft.value.name } })
  })
}
function drop(): void {
  void saving.write({ ...draft.value, put_away: true }, () => {
    renew()
    void router.push({ name: 'plans' })
  })
}
function copy(): void {
  change({ name: `${draft.value.name} again`.slice(0, 80) })
}
const take = (input: MealIn): void => change({ ...blankMeal(), ...input })
const putOnList = (): void => void listing.write({ name: props.name }, renew)
</script>

<template>
  <div class="head">
    <h1>{{ title }}</h1>
    <span class="quiet">{{ about }}</span>
    <div class="acts">
      <RouterLink class="act" :to="{ name: 'plans' }">All plans</RouterLink>
      <template v-if="!isNew && !isChanged">
        <a
          class="act"
          :href="`/api/kitchens/${kitchen_slug}/meals/${encodeURIComponent(name)}/plan.ics`"
          download
          >Calendar file</a
        >
        <DropPanel word="Copy, drop">
          <div class="lines">
            <button type="button" class="act" @click="copy">Copy it</button>
            <button type="button" class="act" @click="drop">Drop it: off the list</button>
          </div>
        </DropPanel>
        <button type="button" class="act first" :disabled="!plan?.jobs.length" @click="putOnList">
          {{ page?.jobs.length ? 'Put it on the list anew' : 'Go: put it on the list' }}
        </button>
      </template>
      <button v-else type="button" class="act first" :disabled="saving.isSaving.value" @click="save">
        Save the plan
      </button>
    </div>
  </div>
  <LoadState v-if="!options" :error="error" what="the plans" @retry="refetch()" />
  <LoadState v-else-if="!isNew && !page && pageError" :error="pageError" what="the plan" @retry="refetch()" />
  <template v-else>
    <ProblemNote v-if="listing.problem.value" :problem="listing.problem.value" />
    <p
      v-if="page?.on_time && !isChanged"
      class="panel standing"
      :class="{ late: page.is_late }"
      role="status"
    >
      {{ page.is_late ? '▲' : '✓' }} {{ page.on_time }}
      <span class="quiet"
        >{{ page.jobs.filter((job) => job.state === 'done').length }} of {{ page.jobs.length }} jobs
        done</span
      >
    </p>
    <details class="panel" :open="isNew || isChanged">
      <summary><b>What, when and how</b></summary>
      <MealForm
        v-model="draft"
        :options="options"
        :plan="plan"
        :problem="saving.problem.value"
        @input="isChanged = true"
        @change="isChanged = true"
      />
    </details>
    <p v-if="!plan" class="panel quiet">
      Say what is to be served, when, and by which method: then it is counted back from there.
    </p>
    <TwoColumns v-else side-first class="plan">
      <div class="moves" role="group" aria-label="Move the meal">
        <button type="button" class="act small" @click="move(-1)">A day earlier</button>
        <button type="button" class="act small" @click="move(1)">A day later</button>
        <span class="quiet small">{{ plan.later }}</span>
      </div>
      <LanesDrawing
        :lanes="plan.lanes"
        :first="plan.first"
        :days="plan.days"
        :now="now"
        :hands="hands"
        :meal="plan.meal_at"
        :clashes="plan.clashes"
      />
      <section v-if="plan.jobs.length" class="panel" aria-label="Counted back">
        <h2>Counted back</h2>
        <ol>
          <li v-for="job in plan.jobs" :key="job.starts + job.kind">
            <b>{{ job.words }}</b>
            <span>{{ weekMomentText(job.starts) }}</span>
            <span class="quiet">{{ workText(job) }}</span>
            <span class="quiet small">{{
              job.is_too_long ? '▲ longer than it may lie' : spareText(job.spare_hours)
            }}</span>
          </li>
        </ol>
      </section>
      <OddsDrawing v-if="plan.buy" :buy="plan.buy" :wanted="wanted" />
      <template #side>
        <PlanSide :plan="plan" @take="take" />
      </template>
    </TwoColumns>
  </template>
</template>

<style scoped>
details {
  margin-bottom: 16px;
}

summary {
  padding: 4px 0;
  cursor: pointer;
}

details[open] summary {
  margin-bottom: 10px;
}

.moves {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}

.standing {
  margin-bottom: 16px;
  border-left: 6px solid var(--good);
}

.standing.late {
  border-left-color: var(--care);
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
