<script setup lang="ts">
import { computed } from 'vue'
import type { Batch, Shop, Verdict } from '@/shared/api/client'
import { ofStage, useUnits, without } from '@/shared/quantity/useUnits'
import WhyFigure from '@/shared/why/WhyFigure.vue'

/** House beside each of the shop's kinds: cheaper or dearer by how much a pound, a portion, on the batch. */
const props = defineProps<{ batch: Batch; verdict: Verdict | undefined }>()
const { money, costText, unit, unitWord } = useUnits()
const savedOf = (shop: Shop): string | null =>
  (unit.value === 'lb' ? shop.saved_per_lb : shop.saved_per_kg) ?? null
const isEven = (shop: Shop): boolean => Number(savedOf(shop)) === 0
const signOf = (shop: Shop): string => (isEven(shop) ? '=' : shop.is_cheaper ? '▼' : '▲')
function verdictOf(shop: Shop): string {
  const saved = savedOf(shop)
  if (saved === null) return 'Nothing left to compare'
  if (isEven(shop)) return 'As dear as the shop'
  return `${money(without(saved))} a ${unitWord.value} ${shop.is_cheaper ? 'cheaper' : 'dearer'}`
}
const less = (amount: string): string => (amount.startsWith('-') ? 'more' : 'less')
const packText = (shop: Shop): string => {
  const cut = shop.pack.indexOf(' ')
  return `${money(shop.pack.slice(0, cut))}${shop.pack.slice(cut)}`
}
const apart = computed(() => props.verdict?.judged.bases[0]?.shops.map((rung) => rung.apart) ?? [])
</script>

<template>
  <section class="panel" aria-label="Against the shop">
    <template v-for="(shop, index) in batch.shops" :key="shop.entry">
      <p class="quiet small kind">Against the {{ shop.name }}</p>
      <p class="verdict" :class="[shop.is_cheaper ? 'good' : 'dear', { lesser: index > 0 }]">
        <span aria-hidden="true">{{ signOf(shop) }}&nbsp;</span>
        <WhyFigure figure="saved_per_lb" :shop="index">{{ verdictOf(shop) }}</WhyFigure>
      </p>
      <ul>
        <li v-if="apart[index] === false && savedOf(shop) !== null" class="care">
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
          <li v-if="shop.break_even">
            It stops paying above
            <WhyFigure figure="break_even" :shop="index"
              ><b>{{ costText(shop.break_even) }}</b></WhyFigure
            >
            a {{ unitWord }} as bought.
          </li>
          <li v-if="shop.earned_per_hour">
            Your hour {{ shop.earned_per_hour.startsWith('-') ? 'lost' : 'earned' }}
            <WhyFigure figure="earned_per_hour" :shop="index"
              ><b>{{ money(without(shop.earned_per_hour)) }}</b></WhyFigure
            >.
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
    <p v-if="batch.shops.length && !batch.house.is_sliced" class="care">
      The house price is of a {{ ofStage(batch.house.stage, unitWord) }}; it still climbs until all is sliced.
    </p>
    <template v-if="!batch.shops.length">
      <p class="quiet small">Against the shop</p>
      <p>No shop pack is set for this batch yet.</p>
      <RouterLink class="act small" :to="{ name: 'log', params: { code: batch.code } }">
        Set one on the bench
      </RouterLink>
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
