<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useKeys } from '@/shared/ui/useKeys'
import { provideFormFacts } from '@/shared/writing/formFacts'
import CaseAxis from './CaseAxis.vue'
import { caseScale } from './caseScale'
import type { Offer } from './offerDraft'
import OfferPad from './OfferPad.vue'
import OfferRow from './OfferRow.vue'
import PlanFields from './PlanFields.vue'
import { useCase } from './useCase'

/** At the meat case: offers ranked by what a sliced pound will come to, against the shop. */
const { draft, choices, checked, problem, check, put, drop, faultsOf } = useCase()
const { cost, costText, unit, unitWord } = useUnits()
const planning = ref(false)
const typing = ref(false)
const changing = ref<Offer | null>(null)
const sheet = ref<HTMLElement | null>(null)
const column = ref<HTMLElement | null>(null)
const { width: room } = useElementSize(column)
const width = computed(() => Math.max(0, Math.floor(room.value)))
provideFormFacts({
  preview: computed(() =>
    checked.value ? { readings: [], problems: checked.value.problems, shops: [] } : null,
  ),
  problem,
})
const shops = computed(() =>
  (checked.value?.shops ?? []).map((shop) => ({
    name: shop.name,
    price: Number(cost(shop.price)),
    text: costText(shop.price),
  })),
)
const typed = (id: string): Offer | undefined => draft.case.offers.find((one) => one.id === id)
const rows = computed(() => (checked.value?.offers ?? []).filter((offer) => typed(offer.id)))
const unread = computed(() =>
  draft.case.offers
    .map((offer) => ({ offer, faults: faultsOf(offer.id) }))
    .filter(({ faults }) => faults.length),
)
const scale = computed(() => {
  const drawn = rows.value.filter((offer) => !offer.question)
  const prices = drawn.flatMap((offer) => [
    Number(cost(offer.tag)),
    Number(cost(offer.sliced.low)),
    Number(cost(offer.sliced.high)),
  ])
  return caseScale([...prices, ...shops.value.map((shop) => shop.price)], width.value)
})
const dayFault = computed(() => checked.value?.problems.find((one) => one.path === 'on')?.message)
const told = computed(() => {
  const { about, portions, on, offers, way } = draft.case
  const count = offers.length === 1 ? 'one offer' : `${offers.length} offers`
  const day = on ? ` on ${dayText(on)}` : ''
  return `${count}, for ${portions ? `${portions} portions${day}` : `about ${about || '20 lb'}`}, by “${way}”`
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

function answer(offer: Offer, isPack: boolean, asked: string | null): void {
  const byWeight = unit.value === 'lb' ? ('per_lb' as const) : ('per_kg' as const)
  const isOther = asked === 'is_pack' ? isPack : !isPack
  const basis = !isOther ? offer.basis : isPack ? ('pack' as const) : byWeight
  put({ ...offer, basis, is_sure: true })
}
useKeys({ a: () => void open(null) })
</script>

<template>
  <div class="head">
    <h1>At the case</h1>
    <span v-if="choices.data.value" class="quiet told">{{ told }}</span>
    <div class="acts">
      <RouterLink class="act" :to="{ name: 'prices' }">Price list</RouterLink>
      <button type="button" class="act" :aria-expanded="planning" @click="planning = !planning">
        Change the plan
      </button>
      <button type="button" class="act first add" @click="open(null)">Add an offer</button>
    </div>
  </div>
  <LoadState
    v-if="!choices.data.value"
    :error="choices.error.value"
    what="the ways and the shop"
    @retry="choices.refetch()"
  />
  <p v-else-if="!choices.data.value.ways.length" class="panel">
    An offer is judged by how it will be made.
    <RouterLink :to="{ name: 'ways' }">Save a way first</RouterLink>: its steps, what they use, how long they
    take.
  </p>
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
        <button type="button" class="act small" @click="open(offer)">Change {{ offer.cut || 'it' }}</button>
        <button type="button" class="act small" @click="drop(offer.id)">Leave it out</button>
      </li>
    </ul>
    <p v-if="dayFault" class="note">{{ dayFault }}</p>
    <p v-for="note in checked?.told ?? []" :key="note" class="note">{{ note }}</p>
    <section class="panel rows" aria-label="Offers, cheapest first">
      <div class="axis">
        <p class="small narrow axis-word">expected price of a sliced {{ unitWord }}, by your own yields</p>
        <div ref="column" class="column">
          <CaseAxis v-if="width && rows.length" :scale="scale" :width="width" />
        </div>
      </div>
      <ul v-if="rows.length && checked">
        <OfferRow
          v-for="offer in rows"
          :key="offer.id"
          :offer="offer"
          :typed="typed(offer.id)!"
          :asked="draft.case"
          :checked="checked"
          :scale="scale"
          :width="width"
          :shops="shops"
          @change="open(typed(offer.id)!)"
          @drop="drop(offer.id)"
          @answer="(isPack) => answer(typed(offer.id)!, isPack, offer.question_is)"
        />
      </ul>
      <p v-else-if="!draft.case.offers.length" class="empty quiet">
        No offer yet. Read the tags at the case into “Add an offer”: cut, price, and what the label says of
        water.
      </p>
      <div v-if="rows.length" class="axis foot">
        <div class="column"><CaseAxis v-if="width" :scale="scale" :width="width" :shops="shops" /></div>
      </div>
    </section>
    <p v-if="rows.length" class="legend small">
      <span><b>Open ring</b> tag price</span>
      <span><b>Bar</b> expected, eight times in ten inside the pale part</span>
      <span v-if="checked?.against"
        ><b>Worth up to</b> the tag price at which it equals the {{ checked.against }}</span
      >
    </p>
  </div>
</template>

<style scoped>
.told {
  font-stretch: 92%;
}

.case {
  display: grid;
  gap: 12px;
}

.rows {
  padding: 0;
}

.axis {
  display: grid;
  grid-template-columns: 214px 96px minmax(0, 1fr) 190px 118px;
  gap: 0 12px;
  padding: 8px 16px 2px;
  position: relative;
}

.axis .column {
  grid-column: 3;
  min-height: 22px;
}

.axis-word {
  grid-column: 1 / 3;
  color: var(--quiet);
}

.foot {
  border-top: 1px solid #dde2df;
  padding-bottom: 8px;
}

.empty {
  padding: 40px 16px;
  text-align: center;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 28px;
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

.unread p {
  flex: 1 1 260px;
}

@media (max-width: 979px) {
  .axis {
    grid-template-columns: minmax(0, 1fr);
    padding: 8px 12px 2px;
  }

  .axis .column,
  .axis-word {
    grid-column: 1;
  }
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
