<script setup lang="ts">
import { computed, ref } from 'vue'
import { useToday } from '@/shared/api/useBatch'
import BatchRow from '@/shared/parts/BatchRow.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import LoadState from '@/shared/ui/LoadState.vue'
import TwoColumns from '@/shared/ui/TwoColumns.vue'
import BooksHead from './BooksHead.vue'
import FindBox from './FindBox.vue'
import LostTable from './yields/LostTable.vue'
import SavedLine from './SavedLine.vue'
import UnusualList from './UnusualList.vue'
import YieldDots from './yields/YieldDots.vue'
import { useMoneyBook, useUnusualBook, useYieldBook } from './useBooks'

/** What a kitchen's finished batches say: yields, what the year saved, what was out of the usual. */
const SORTS = 6
const { data: yields, error, refetch } = useYieldBook(ref('way'), ref('none'))
const { data: money_book } = useMoneyBook(ref(''), ref(''))
const { data: unusual } = useUnusualBook()
const { data: today } = useToday()
const { money } = useUnits()
const count = computed(() => {
  const many = yields.value?.batches
  if (many === undefined) return ''
  return `${many.toLocaleString('en-US')} finished ${many === 1 ? 'batch' : 'batches'}`
})
const sums = computed(() => money_book.value?.sums)
</script>

<template>
  <BooksHead title="Books" :note="count" />
  <FindBox />
  <LoadState v-if="!yields" :error="error" what="the books" @retry="refetch()" />
  <p v-else-if="!yields.batches" class="panel empty">
    No batch is finished yet. Until then everything here is empty, and forecasts use start values.
    <RouterLink :to="{ name: 'history' }">Bring in batches of before</RouterLink> so that they are this
    kitchen’s own from the first day.
  </p>
  <TwoColumns v-else>
    <section class="panel" aria-label="Sliced yield">
      <div class="title">
        <h2>Sliced yield, of what was bought</h2>
        <span class="quiet small">each dot a batch, the last one dark; the band holds eight in ten</span>
      </div>
      <YieldDots :sorts="yields.sorts.slice(0, SORTS)" is-short />
      <RouterLink class="more" :to="{ name: 'yields' }">
        By step, source, season, cook, thickness, inside temperature
      </RouterLink>
    </section>
    <section v-if="money_book?.kind && sums" class="panel" aria-label="Saved">
      <div class="title">
        <h2>Saved compared with {{ money_book.kind }}</h2>
        <span class="quiet small">{{ money_book.year }}, every batch as it was finished</span>
      </div>
      <SavedLine :points="money_book.points" :year="money_book.year" />
      <p class="quiet small">
        Without the work counted it would be {{ money(sums.saved_without_work) }}; {{ sums.beat }} of
        {{ sums.batches }} batches were cheaper than the shop.
      </p>
    </section>
    <template #side>
      <section v-if="sums" class="panel" aria-label="Your hour">
        <p class="quiet">An hour of work earned, {{ money_book?.year }}</p>
        <p v-if="sums.earned_an_hour" class="hour" :class="{ dear: sums.earned_an_hour.startsWith('-') }">
          {{ money(sums.earned_an_hour) }}
        </p>
        <p v-else>{{ sums.too_little ?? 'No minutes recorded yet.' }}</p>
        <p v-for="tool in money_book?.tools" :key="tool.id">The {{ tool.name }} {{ tool.said }}.</p>
      </section>
      <UnusualList v-if="unusual" :book="unusual" :most="3" />
    </template>
  </TwoColumns>
  <LostTable />
  <template v-if="today?.finished.length">
    <h2 class="lately">Recently finished</h2>
    <ul class="rows" aria-label="Batches">
      <BatchRow v-for="batch in today.finished" :key="batch.code" :batch="batch" />
    </ul>
  </template>
</template>

<style scoped>
.title {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 16px;
  margin-bottom: 8px;
}

.more {
  display: inline-block;
  padding: 10px 0;
}

.hour {
  font-size: 44px;
  line-height: 1.1;
  font-weight: 780;
  font-stretch: 112%;
  color: var(--good);
}

.hour.dear {
  color: var(--rose-deep);
}

.lately {
  margin: 20px 0 8px;
}

.rows {
  display: grid;
  gap: 10px;
}

.empty {
  padding: 32px 16px;
}
</style>
