<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { computed, nextTick, ref } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { asDate, dayText, longDayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useKeys } from '@/shared/frame/useKeys'
import { provideFormFacts } from '@/shared/writing/formFacts'
import CaseRows from './CaseRows.vue'
import type { Offer } from './offerDraft'
import OfferPad from './OfferPad.vue'
import PlanFields from './PlanFields.vue'
import { useCase } from './useCase'

/**
 * At the meat case: offers ranked by what a sliced pound will come to, against the shop. `query`: what a meal
 * plan asks for.
 */
const props = defineProps<{ query?: Record<string, unknown> }>()
const { draft, choices, checked, problem, check, put, drop, askFor, leavePlan, clearExamples, faultsOf } =
  useCase()
const asked = (name: string): string => String(props.query?.[name] ?? '')
if (asked('plan'))
  askFor(
    { name: asked('plan'), by: asked('by') },
    { way: asked('way'), sliced: asked('sliced'), sure: asked('sure') },
  )
const { like } = useUnits()
const planning = ref(false)
const typing = ref(false)
const changing = ref<Offer | null>(null)
const sheet = ref<HTMLElement | null>(null)
provideFormFacts({
  preview: computed(() =>
    checked.value ? { readings: [], asks: [], problems: checked.value.problems, shops: [] } : null,
  ),
  problem,
})
const unread = computed(() =>
  draft.case.offers
    .map((offer) => ({ offer, faults: faultsOf(offer.id) }))
    .filter(({ faults }) => faults.length),
)
const dayFault = computed(() => checked.value?.problems.find((one) => one.path === 'on')?.message)
/** By which method, and what the meat is to become. */
const how = computed(() => {
  const to = checked.value?.course_label ?? ''
  const { way } = draft.case
  return [way ? `by “${way}”` : '', to ? `to be ${to}` : ''].filter(Boolean).join(', ')
})
const summary = computed(() => {
  const { about, portions, sliced, on, offers } = draft.case
  const count = offers.length === 1 ? 'one offer' : `${offers.length} offers`
  const day = on ? ` on ${dayText(on)}` : ''
  if (sliced) return `${count}, for ${sliced} sliced, ${how.value}`
  return `${count}, for ${portions ? `${portions} portions${day}` : `about ${about || like('20 lb', '10 kg')}`}, ${how.value}`
})

async function open(offer: Offer | null): Promise<void> {
  changing.value = offer
  typing.value = false
  await nextTick()
  typing.value = true
  await nextTick()
  sheet.value?.scrollIntoView({ block: 'nearest' })
}

function done(offer: Offer, next: boolean): void {
  put(offer)
  if (!next || changing.value) typing.value = false
  changing.value = null
}

useKeys({ a: () => void open(null) })
</script>

<template>
  <div class="head">
    <h1>At the case</h1>
    <span class="quiet detail">{{ summary }}</span>
    <div class="acts">
      <ActButton :aria-expanded="planning" @click="planning = !planning"> Change the plan </ActButton>
      <ActButton class="add" first @click="open(null)">Add an offer</ActButton>
    </div>
  </div>
  <LoadState
    v-if="!choices.data.value"
    :error="choices.error.value"
    what="methods and shop prices"
    @retry="choices.refetch()"
  />
  <div v-else class="case">
    <section v-if="planning" class="panel" aria-label="The plan">
      <PlanFields v-model:plan="draft.case" :choices="choices.data.value" />
    </section>
    <section v-if="typing" ref="sheet" class="panel sheet">
      <OfferPad :offer="changing" :listed="choices.data.value.listed" @done="done" @close="typing = false" />
    </section>
    <ProblemNote v-if="problem" :problem="problem" retry-word="Try again" @retry="check" />
    <ul v-if="unread.length" class="unread">
      <li v-for="{ offer, faults } in unread" :key="offer.id">
        <p>
          <b>{{ offer.cut || 'An offer' }}, {{ offer.price || 'no price' }}:</b> {{ faults.join(' ') }}
        </p>
        <ActButton small @click="open(offer)">Change {{ offer.cut || 'it' }}</ActButton>
        <ActButton small @click="drop(offer.id)">Remove it</ActButton>
      </li>
    </ul>
    <p v-if="draft.forPlan" class="plan-note panel">
      <span
        >For
        <RouterLink :to="{ name: 'plan', params: { name: draft.forPlan.name } }">{{
          draft.forPlan.name
        }}</RouterLink>: <b>{{ draft.case.sliced }}</b> sliced, enough {{ draft.case.sure }} times of 100{{
          draft.forPlan.by ? `; buy by ${longDayText(asDate(draft.forPlan.by))}` : ''
        }}.</span
      >
      <ActButton small @click="leavePlan">Not for a plan</ActButton>
    </p>
    <p v-if="dayFault" class="note">{{ dayFault }}</p>
    <p v-if="checked?.ready_if_bought_today" class="note">
      Too late for {{ dayText(draft.case.on ?? '') }}: meat bought today is ready on about
      {{ dayText(checked.ready_if_bought_today) }}.
    </p>
    <p v-for="note in checked?.notes ?? []" :key="note" class="note">{{ note }}</p>
    <p v-if="draft.isExample" class="note">
      These four tags are examples. Add an offer from your own case and they make room.
      <ActButton small @click="clearExamples">Clear the examples</ActButton>
    </p>
    <p v-if="!choices.data.value.shops.length" class="note">
      There is no shop price to compare with yet.
      <ActLink small :to="{ name: 'prices', query: { sort: 'shop_pack' } }">Add a shop pack</ActLink>
    </p>
    <CaseRows :asked="draft.case" :checked="checked" @change="open" @drop="drop" @answer="put" />
    <p v-if="!draft.case.way" class="quiet small">
      Priced by the standard method: typical times, no ingredient costs.
      <RouterLink :to="{ name: 'ways' }">Save your own method</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.detail {
  font-stretch: 92%;
}

.case {
  display: grid;
  gap: 12px;
}

.unread {
  display: grid;
  gap: 8px;
}

.unread li,
.note {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  background: var(--care-ground);
  border: 1px solid var(--edge);
  border-left: 6px solid var(--care);
  border-radius: 4px;
  padding: 8px 12px;
}

.plan-note {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 8px 12px;
}

.unread p {
  flex: 1 1 260px;
}

@media (max-width: 719px) {
  .head .acts {
    margin-left: 0;
  }

  .head .acts .act {
    padding: 0 12px;
  }

  .sheet {
    position: fixed;
    inset: auto 0 0;
    z-index: 6;
    max-height: 92vh;
    overflow-y: auto;
    border-radius: 8px 8px 0 0;
    box-shadow: 0 -6px 24px rgb(0 0 0 / 30%);
    padding: 10px 12px calc(12px + env(safe-area-inset-bottom));
  }
}
</style>
