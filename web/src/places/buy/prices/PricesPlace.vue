<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useSlug } from '@/shared/api/useSlug'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import DropPanel from '@/shared/ui/DropPanel.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import { useInAddress } from '@/shared/ui/useInAddress'
import NotePrice from './NotePrice.vue'
import PriceTable from './PriceTable.vue'
import { type Sort, sorts, usePrices } from './usePrices'

/** The price list: latest, lowest and usual price of everything, with a line of its history. */
const PAGE = 60
const slug = useSlug()
const sort = useInAddress<Sort>('sort', 'meat')
const find = useInAddress('find', '')
const sought = refDebounced(find, 250)
const page = ref(0)
const noting = ref(false)
watch([sort, sought], () => (page.value = 0))
const { data: prices, error, refetch } = usePrices(sort, sought, page)
const choices = computed(() =>
  sorts.map(({ value, word }) => ({ value, word: `${word} ${prices.value?.counts[value] ?? ''}`.trim() })),
)
const last = computed(() => Math.max(0, Math.ceil((prices.value?.total ?? 0) / PAGE) - 1))
const address = (form: string): string => `/api/kitchens/${slug.value}/prices/files/${form}`
const dry = computed(() =>
  sought.value
    ? `Nothing here matches “${sought.value}”.`
    : 'No prices yet. Add one, or import a price list.',
)
</script>

<template>
  <div class="head">
    <h1>Price list</h1>
    <div class="acts">
      <ActLink v-may:cook :to="{ name: 'price-import' }">Import a price list</ActLink>
      <DropPanel word="Export">
        <ul class="files">
          <li><ActButton :href="address('csv')" download="">As CSV</ActButton></li>
          <li><ActButton :href="address('xlsx')" download="">As a workbook (XLSX)</ActButton></li>
        </ul>
      </DropPanel>
      <ActButton v-may:cook first :aria-expanded="noting" @click="noting = !noting"> Add a price </ActButton>
    </div>
  </div>
  <section v-if="noting" class="panel noting" aria-label="Add a price">
    <NotePrice
      :key="sort"
      :sort="sort"
      :sources="prices?.sources ?? []"
      @noted="refetch()"
      @close="noting = false"
    />
  </section>
  <div class="filter">
    <ChoiceBar v-model="sort" label="Sort" quiet-label :choices="choices" />
    <TypedInput
      v-model="find"
      class="find"
      label="Search by name"
      quiet-label
      type="search"
      placeholder="search by name"
    />
  </div>
  <LoadState v-if="!prices" :error="error" what="the price list" @retry="refetch()" />
  <template v-else>
    <div v-if="prices.items.length" class="panel list">
      <PriceTable :items="prices.items" :sort="sort" />
    </div>
    <p v-else class="panel empty quiet">{{ dry }}</p>
    <nav v-if="last > 0" class="pages" aria-label="Pages">
      <ActButton small :disabled="page === 0" @click="page -= 1">Previous</ActButton>
      <span>{{ page + 1 }} of {{ last + 1 }}, {{ prices.total }} items</span>
      <ActButton small :disabled="page >= last" @click="page += 1">Next</ActButton>
    </nav>
  </template>
</template>

<style scoped>
.noting {
  margin-bottom: 12px;
}

.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  margin-bottom: 12px;
}

.find {
  margin-left: auto;
  flex: 0 1 220px;
}

.list {
  padding: 0 16px;
  overflow-x: auto;
}

.files {
  display: grid;
  gap: 8px;
}

.pages {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-top: 12px;
}

.empty {
  padding: 40px 16px;
  text-align: center;
}

@media (max-width: 719px) {
  .find {
    margin-left: 0;
    flex: 1 1 100%;
  }

  .list {
    padding: 0 12px;
  }
}
</style>
