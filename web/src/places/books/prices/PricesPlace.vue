<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import { computed } from 'vue'
import { useUnits, without } from '@/shared/quantity/useUnits'
import LoadState from '@/shared/ui/LoadState.vue'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import { useInAddress } from '@/shared/ui/useInAddress'
import BooksHead from '@/places/books/BooksHead.vue'
import PriceLines from './PriceLines.vue'
import SellersPanel from './SellersPanel.vue'
import { usePriceBook } from '@/places/books/useBooks'

/** Raw meat and shop packs over time, source by source, and where the house would be at today's prices. */
const { data, error, refetch } = usePriceBook()
const { costText, cost, money, unitWord } = useUnits()
const sort = useInAddress<'meat' | 'shop_pack'>('of', 'meat')
const sorts: { value: 'meat' | 'shop_pack'; word: string }[] = [
  { value: 'meat', word: 'Raw meat' },
  { value: 'shop_pack', word: 'Shop packs' },
]
const items = computed(() => data.value?.items.filter((item) => item.sort === sort.value) ?? [])
const changeText = (change: string): string => {
  const size = without(change)
  return Number(change) < 0 ? `${size} % less than a year before` : `${size} % more than a year before`
}
</script>

<template>
  <BooksHead title="Prices over time">
    <ActLink small :to="{ name: 'prices' }">Price list</ActLink>
  </BooksHead>
  <LoadState v-if="!data" :error="error" what="the prices" @retry="refetch()" />
  <template v-else>
    <section class="panel" aria-label="At today’s prices">
      <h2>The house at today’s prices</h2>
      <p class="quiet small">
        The last batch of each sort with its meat at the latest price of that cut; all else as it was.
      </p>
      <p v-if="!data.house.length" class="quiet">No batch is finished yet.</p>
      <ul v-else class="house">
        <li v-for="one in data.house" :key="one.code">
          <p>
            <b>{{ one.label }}</b>
            <RouterLink :to="{ name: 'strip', params: { code: one.code } }">{{ one.code }}</RouterLink>
          </p>
          <p>
            {{ costText(one.then) }} a finished {{ unitWord }} then<template v-if="one.now"
              >, <b>{{ costText(one.now) }} today</b> ({{ one.meat_item }})</template
            ><template v-else>; the price list has no meat of this cut</template>.
          </p>
          <p v-if="one.saved && one.shop" :class="Number(cost(one.saved)) < 0 ? 'dear' : 'good'">
            {{ one.shop_name }} is {{ costText(one.shop) }} today: the house is
            {{ money(without(cost(one.saved))) }}
            {{ Number(cost(one.saved)) < 0 ? 'more expensive' : 'cheaper' }}.
          </p>
          <p v-else-if="one.shop_name" class="quiet">{{ one.shop_name }} has no price in the list.</p>
        </li>
      </ul>
    </section>
    <ChoiceBar v-model="sort" label="Prices of" quiet-label :choices="sorts" class="sorts" />
    <p v-if="!items.length" class="panel quiet">No price noted yet.</p>
    <div class="items">
      <section v-for="item in items" :key="`${item.name} ${item.kind}`" class="panel" :aria-label="item.name">
        <div class="title">
          <h2>{{ item.name }}</h2>
          <span v-if="item.change" class="quiet small">{{ changeText(item.change) }}</span>
        </div>
        <PriceLines :lines="item.lines" />
      </section>
    </div>
    <SellersPanel v-if="data.sellers.length" :sellers="data.sellers" class="sellers" />
  </template>
</template>

<style scoped>
.house {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 340px), 1fr));
  gap: 12px 24px;
  margin-top: 8px;
}

.house p:first-child b {
  margin-right: 6px;
}

.sorts {
  margin: 16px 0 10px;
}

.items {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 380px), 1fr));
  gap: 12px;
}

.sellers {
  margin-top: 16px;
}

.title {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 12px;
}
</style>
