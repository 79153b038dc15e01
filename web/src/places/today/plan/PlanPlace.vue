<script setup lang="ts">
import { useDraft } from '@/shared/writing/useDraft'
import ActLink from '@/shared/ui/ActLink.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useSlug } from '@/shared/api/useSlug'
import { useUnits } from '@/shared/quantity/useUnits'
import { clockText, longDayText, weekMomentText } from '@/shared/quantity/when'
import DropPanel from '@/shared/ui/DropPanel.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TwoColumns from '@/shared/ui/TwoColumns.vue'
import LanesDrawing from '@/places/today/LanesDrawing.vue'
import CountedBack from './CountedBack.vue'
import ListedStatus from './ListedStatus.vue'
import MealForm from './MealForm.vue'
import NeededList from './NeededList.vue'
import OddsDrawing from './OddsDrawing.vue'
import PlanFacts from './PlanFacts.vue'
import PlanSide from './PlanSide.vue'
import {
  blankMeal,
  draftOf,
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
const { draft: typed, clear } = useDraft(`plan:${props.name || `new ${props.product ?? ''}`}`, () => ({
  meal: first(),
  isChanged: props.name === '',
}))
const draft = toRef(typed, 'meal')
const isChanged = toRef(typed, 'isChanged')
watch(
  page,
  (now) => {
    if (now && !isChanged.value) draft.value = draftOf(now.input)
  },
  { immediate: true },
)
const asking = useMealPreview(() => (isAskable(draft.value) ? draft.value : null))
const plan = computed(() => (isChanged.value ? asking.last.value : (page.value?.plan ?? asking.last.value)))
const { saving, listing, renew } = useMealWrites(() => draft.value)
const isNew = computed(() => props.name === '')
/** On the list, as it was saved: what is shown of it is what was done. */
const isListed = computed(() => !isChanged.value && !!page.value?.jobs.length)
const isUnderWay = computed(() => isListed.value && !!page.value?.is_under_way)
const title = computed(() => draft.value.name || 'A new plan')
const about = computed(() => {
  const wants = draft.value.wants.filter((want) => want.name).map((want) => `${want.amount} ${want.name}`)
  const day = longDayText(new Date(`${draft.value.day}T12:00`))
  const ways = new Set(draft.value.makes.map((make) => make.way).filter(Boolean))
  const by = ways.size ? `, by ${[...ways].map((way) => `“${way}”`).join(' and ')}` : ''
  return `${wants.join(', ')} on ${day} at ${clockText(draft.value.at)}${by}`
})
const now = new Date().toISOString()
const short: Record<string, string> = { rest: 'rinse, dry', cook: 'smoke', dry: 'hang', age: 'hang' }
const hands = computed(() =>
  (plan.value?.jobs ?? []).map((job) => ({ at: job.starts, words: short[job.kind] ?? job.kind })),
)
const wantedText = (products: string[]): string =>
  (plan.value?.needed ?? [])
    .filter((one) => products.includes(one.product))
    .map((one) => `${one.product}: ${weightText(one.wanted)} wanted, ${weightText(one.short)} to be made`)
    .join('; ')
/** When it begins at the latest, and what a day later would do; nothing once it is being made. */
const laterText = computed(() => {
  if (isUnderWay.value || !plan.value?.latest_start) return ''
  const start = plan.value.is_too_late ? '' : `Latest start ${weekMomentText(plan.value.latest_start)}. `
  return `${start}${plan.value.later}`
})
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
  const { name } = draft.value
  void saving.write({ ...draft.value }, () => {
    isChanged.value = false
    renew()
    if (props.name === name) return
    clear()
    void router.push({ name: 'plan', params: { name } })
  })
}
function drop(): void {
  void saving.write({ ...draft.value, put_away: true }, () => {
    clear()
    renew()
    void router.push({ name: 'plans' })
  })
}
function copy(): void {
  change({ name: `${draft.value.name} again`.slice(0, 80) })
}
const take = (input: MealIn): void => change(draftOf(input))
const putOnList = (): void => void listing.write({ name: props.name }, renew)
</script>

<template>
  <div class="head">
    <h1>{{ title }}</h1>
    <span class="quiet">{{ about }}</span>
    <div class="acts">
      <ActLink :to="{ name: 'plans' }">All plans</ActLink>
      <template v-if="!isNew && !isChanged">
        <ActButton
          :href="`/api/kitchens/${kitchen_slug}/meals/${encodeURIComponent(name)}/plan.ics`"
          download=""
          >Calendar file</ActButton
        >
        <DropPanel word="Copy or delete">
          <div class="lines">
            <ActButton v-may:cook @click="copy">Copy it</ActButton>
            <ActButton v-may:cook @click="drop">Delete this plan</ActButton>
          </div>
        </DropPanel>
        <ActButton :class="{ first: !isListed }" :disabled="!plan?.jobs.length" @click="putOnList">
          {{ page?.jobs.length ? 'Update the to-do list' : 'Add to the to-do list' }}
        </ActButton>
      </template>
      <ActButton v-else v-may:cook first :disabled="saving.isSaving.value" @click="save">
        Save the plan
      </ActButton>
    </div>
  </div>
  <LoadState v-if="!options" :error="error" what="the plans" @retry="refetch()" />
  <LoadState v-else-if="!isNew && !page && pageError" :error="pageError" what="the plan" @retry="refetch()" />
  <template v-else>
    <ProblemNote v-if="listing.problem.value" :problem="listing.problem.value" />
    <ListedStatus v-if="isListed && page" :page="page" @take="take" @renew="putOnList" />
    <FoldAway class="panel" :open="isNew || isChanged" word="What, when and how">
      <MealForm
        v-model="draft"
        :options="options"
        :plan="plan"
        :problem="saving.problem.value"
        @input="isChanged = true"
        @change="isChanged = true"
      />
    </FoldAway>
    <p v-if="!plan" class="panel quiet">
      Say what is to be served, when, and by which method: then it is counted back from there.
    </p>
    <TwoColumns v-else side-first class="plan">
      <div class="moves" role="group" aria-label="Move the meal">
        <ActButton v-may:cook small @click="move(-1)">A day earlier</ActButton>
        <ActButton v-may:cook small @click="move(1)">A day later</ActButton>
        <span class="quiet small">{{ laterText }}</span>
      </div>
      <LanesDrawing
        :lanes="plan.lanes"
        :first="plan.first"
        :days="plan.days"
        :now="now"
        :hands="hands"
        :meal="plan.meal_at"
        :clashes="isUnderWay ? [] : plan.clashes"
        @move="move"
      />
      <PlanFacts v-if="isListed && page" :page="page" />
      <CountedBack v-else-if="plan.jobs.length" :jobs="plan.jobs" />
      <template v-if="!isUnderWay">
        <OddsDrawing
          v-for="buy in plan.buys"
          :key="buy.make"
          :buy="buy"
          :of="plan.buys.length > 1 ? buy.meat : ''"
          :wanted="wantedText(buy.products)"
        />
      </template>
      <template #side>
        <PlanSide :plan="plan" :draft="draft" :is-under-way="isUnderWay" @take="take" />
        <NeededList
          :model-value="draft.leave_out"
          :plan="plan"
          @update:model-value="(leave_out) => change({ leave_out })"
        />
      </template>
    </TwoColumns>
  </template>
</template>

<style scoped>
.moves {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
</style>
