<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import CaseAxis from './CaseAxis.vue'
import { caseScale } from './caseScale'
import type { Offer } from './offerDraft'
import OfferRow from './OfferRow.vue'
import type { Case, Checked, CheckedOffer } from './useCase'

/** The offers, cheapest first, drawn on one scale of prices with the shop's kinds. */
const props = defineProps<{ asked: Case; checked: Checked | null }>()
const emit = defineEmits<{ change: [offer: Offer]; drop: [id: string]; answer: [offer: Offer] }>()
const { cost, costText, unit, unitWord } = useUnits()
const column = ref<HTMLElement | null>(null)
const { width: room } = useElementSize(column)
const width = computed(() => Math.max(0, Math.floor(room.value)))
const shops = computed(() =>
  (props.checked?.shops ?? []).map((shop) => ({
    name: shop.name,
    price: Number(cost(shop.price)),
    text: costText(shop.price),
  })),
)
const typedAs = (id: string): Offer | undefined => props.asked.offers.find((one) => one.id === id)
const rows = computed(() =>
  (props.checked?.offers ?? []).flatMap((offer) => {
    const typed = typedAs(offer.id)
    return typed ? [{ offer, typed }] : []
  }),
)
/** An offer that is asked about would stretch the scale beyond reading; it waits for its answer. */
const scale = computed(() => {
  const drawn = rows.value.filter(({ offer }) => !offer.question)
  const prices = drawn.flatMap(({ offer }) => [
    Number(cost(offer.tag)),
    Number(cost(offer.sliced.low)),
    Number(cost(offer.sliced.high)),
  ])
  return caseScale([...prices, ...shops.value.map((shop) => shop.price)], width.value)
})

function change(id: string): void {
  const typed = typedAs(id)
  if (typed) emit('change', typed)
}

function answer(offer: CheckedOffer, isPack: boolean): void {
  const typed = typedAs(offer.id)
  if (!typed) return
  const byWeight = unit.value === 'lb' ? ('per_lb' as const) : ('per_kg' as const)
  const isOther = offer.question_is === 'is_pack' ? isPack : !isPack
  const basis = !isOther ? typed.basis : isPack ? ('pack' as const) : byWeight
  emit('answer', { ...typed, basis, is_sure: true })
}
</script>

<template>
  <section class="panel rows" aria-label="Offers, cheapest first">
    <div class="axis">
      <p class="small narrow axis-word">
        expected price of a sliced {{ unitWord }},<br />by your own yields, typical ones where you have none
      </p>
      <div ref="column" class="column">
        <CaseAxis v-if="width && rows.length" :scale="scale" :width="width" />
      </div>
    </div>
    <ul v-if="rows.length && checked">
      <OfferRow
        v-for="{ offer, typed } in rows"
        :key="offer.id"
        :offer="offer"
        :typed="typed"
        :asked="asked"
        :checked="checked"
        :scale="scale"
        :width="width"
        :shops="shops"
        @change="change(offer.id)"
        @drop="emit('drop', offer.id)"
        @answer="(isPack) => answer(offer, isPack)"
      />
    </ul>
    <p v-else-if="!asked.offers.length" class="empty quiet">
      No offers yet. Add each tag at the case with “Add an offer”: cut, price, and what the label says about
      added water.
    </p>
    <div v-if="rows.length" class="axis foot">
      <div class="column"><CaseAxis v-if="width" :scale="scale" :width="width" :shops="shops" /></div>
    </div>
  </section>
  <p v-if="rows.length" class="legend small">
    <span><b>Open ring</b> tag price</span>
    <span><b>Bar</b> expected price; 8 times out of 10 it falls in the pale part</span>
    <span v-if="checked?.against"
      ><b>Worth up to</b> the tag price at which it costs the same as {{ checked.against }}</span
    >
  </p>
</template>

<style scoped>
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
</style>
