<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import { computed } from 'vue'
import type { Batch, Shop, Verdict } from '@/shared/api/client'
import { capital } from '@/shared/quantity/capital'
import { chanceText, chanceTone } from '@/shared/quantity/chance'
import { ofStage, useUnits, without } from '@/shared/quantity/useUnits'
import WhyFigure from '@/shared/why/WhyFigure.vue'

/** House beside each of the shop's kinds: cheaper or dearer by how much a pound, a portion, on the batch. */
const props = defineProps<{ batch: Batch; verdict: Verdict | undefined }>()
const { money, cost, costText, unit, unitWord } = useUnits()
/** An unsliced pound beside a sliced one says nothing: until it is finished, the forecast is compared. */
const isForecast = computed(() => !props.batch.house.is_finished)
/** The batch as recorded knows no chances; they come with the verdict. */
const shops = computed(() => (isForecast.value && props.verdict?.judged.shops) || props.batch.shops)
/** What an hour earned where something was sold; null where nothing brought money in yet. */
const salesOf = (name: string): string | null => {
  const stowed = props.verdict?.stowed
  if (!stowed || !Number(stowed.income)) return null
  return stowed.earned.find((one) => one.shop === name)?.per_hour ?? null
}
const savedOf = (shop: Shop): string | null =>
  (unit.value === 'lb' ? shop.saved_per_lb : shop.saved_per_kg) ?? null
const isEven = (shop: Shop): boolean => savedOf(shop) !== null && Number(savedOf(shop)) === 0
const toneOf = (shop: Shop): string => {
  if (savedOf(shop) === null) return chanceTone(shop.chance)
  return isEven(shop) ? 'even' : shop.is_cheaper ? 'good' : 'dear'
}
const signs: Record<string, string> = { even: '=', good: '▼', dear: '▲' }
function verdictOf(shop: Shop): string {
  const saved = savedOf(shop)
  if (saved === null) {
    if (shop.chance == null) {
      if (!isForecast.value) return 'Nothing left to compare'
      return props.verdict ? 'No forecast yet' : 'Comparing …'
    }
    return capital(chanceText(shop.chance, 'the shop'))
  }
  if (isEven(shop)) return 'Costs the same as the shop'
  return `${money(without(saved))} a ${unitWord.value} ${shop.is_cheaper ? 'cheaper' : 'more'}`
}
const less = (amount: string): string => (amount.startsWith('-') ? 'more' : 'less')
/** "from $1.20 cheaper to $0.40 more": what the forecast leaves open. */
function rangeOf(shop: Shop): string | null {
  if (!shop.saved_low || !shop.saved_high) return null
  const say = (saved: string): string =>
    `${money(without(saved))} ${saved.startsWith('-') ? 'more' : 'cheaper'}`
  return `${say(cost(shop.saved_low))} to ${say(cost(shop.saved_high))}`
}
const packText = (shop: Shop): string => {
  const cut = shop.pack.indexOf(' ')
  return `${money(shop.pack.slice(0, cut))}${shop.pack.slice(cut)}`
}
const apart = computed(() => props.verdict?.judged.bases[0]?.shops.map((rung) => rung.apart) ?? [])
</script>

<template>
  <section class="panel" aria-label="Against the shop">
    <template v-for="(shop, index) in shops" :key="shop.entry">
      <p class="quiet small kind">Against the {{ shop.name }}</p>
      <p class="verdict" :class="[toneOf(shop), { lesser: index > 0 }]">
        <span v-if="signs[toneOf(shop)]" aria-hidden="true">{{ signs[toneOf(shop)] }}&nbsp;</span>
        <template v-if="isForecast">{{ verdictOf(shop) }}</template>
        <WhyFigure v-else figure="saved_per_lb" :shop="index">{{ verdictOf(shop) }}</WhyFigure>
      </p>
      <ul>
        <li v-if="rangeOf(shop)">
          by forecast, 8 times out of 10: {{ rangeOf(shop) }} a sliced {{ unitWord }}
        </li>
        <li v-if="!isForecast && apart[index] === false && savedOf(shop) !== null" class="care">
          The scale is not fine enough to tell these two apart.
        </li>
        <li v-if="shop.saved_on_batch">
          <WhyFigure figure="saved_on_batch" :shop="index"
            ><b>{{ money(without(shop.saved_on_batch)) }}</b></WhyFigure
          >
          {{ less(shop.saved_on_batch) }} on this batch<template v-if="shop.saved_per_portion"
            >,
            <WhyFigure figure="saved_per_portion" :shop="index"
              ><b>{{ money(without(shop.saved_per_portion)) }}</b></WhyFigure
            >
            {{ less(shop.saved_per_portion) }} a portion</template
          >
        </li>
        <template v-if="index === 0">
          <li v-if="shop.break_even && cost(shop.break_even).startsWith('-')">
            It does not pay at any price of the meat.
          </li>
          <li v-else-if="shop.break_even">
            It pays up to
            <WhyFigure figure="break_even" :shop="index"
              ><b>{{ costText(shop.break_even) }}</b></WhyFigure
            >
            a {{ unitWord }} as bought.
          </li>
          <li v-if="salesOf(shop.name)">
            Your work {{ salesOf(shop.name)!.startsWith('-') ? 'lost' : 'earned' }}
            <b>{{ money(without(salesOf(shop.name)!)) }}</b> an hour, what was sold counted.
          </li>
          <li v-else-if="shop.earned_per_hour">
            Your work {{ shop.earned_per_hour.startsWith('-') ? 'lost' : 'earned' }}
            <WhyFigure figure="earned_per_hour" :shop="index"
              ><b>{{ money(without(shop.earned_per_hour)) }}</b></WhyFigure
            >
            an hour.
          </li>
        </template>
        <li class="quiet small">
          {{ packText(shop) }}:
          <WhyFigure figure="shop_per_lb" :shop="index">{{ costText(shop.unit_cost) }}</WhyFigure>
          a {{ unitWord }} in the pack<template v-if="shop.portion"
            >, {{ money(shop.portion) }} a portion</template
          >
        </li>
      </ul>
    </template>
    <p v-if="shops.length && isForecast" class="care">
      Compared by the forecast of the sliced {{ unitWord }}. The price so far is for a
      {{ ofStage(batch.house.stage, unitWord) }} and still rises.
    </p>
    <template v-if="!shops.length">
      <p class="quiet small">Against the shop</p>
      <p>No shop pack is set for this batch yet.</p>
      <ActLink small :to="{ name: 'log', params: { code: batch.code } }"> Set one on the bench </ActLink>
    </template>
  </section>
</template>

<style scoped>
.verdict {
  font-size: 20px;
  font-weight: 760;
  line-height: 1.2;
  margin: 1px 0 4px;
}

.verdict.lesser {
  font-size: 16px;
}

ul + .kind {
  border-top: 1px solid var(--edge);
  margin-top: 8px;
  padding-top: 6px;
}

ul {
  display: grid;
  gap: 2px;
}

.care {
  border-left: 4px solid var(--care);
  padding-left: 8px;
  color: var(--care-ink);
  font-size: 14px;
}

p.care,
.act {
  margin-top: 8px;
}
</style>
