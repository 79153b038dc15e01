<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import FryTests from './FryTests.vue'
import NotePrice from './NotePrice.vue'
import SparkLine from './SparkLine.vue'
import { sortWords, usePer, usePriceItem } from './usePrices'

/** One line of the price list: every price ever noted, none overwritten; a shop pack's fryings too. */
const props = defineProps<{ id: number }>()
const { data: whole, error, refetch } = usePriceItem(toRef(props, 'id'))
const { perText, otherText } = usePer()
const { weightText } = useUnits()
const correcting = ref<Schemas['QuoteOut'] | null>(null)
const noting = ref(false)
const sources = computed(() => [...new Set(whole.value?.quotes.map((quote) => quote.source) ?? [])])

function correct(quote: Schemas['QuoteOut']): void {
  correcting.value = quote
  noting.value = true
}
function close(): void {
  noting.value = false
  correcting.value = null
}
</script>

<template>
  <LoadState v-if="!whole" :error="error" what="its prices" @retry="refetch()" />
  <template v-else>
    <div class="head">
      <h1>{{ whole.item.name }}</h1>
      <span class="badge">{{ whole.item.kind || sortWords[whole.item.sort] }}</span>
      <div class="acts">
        <ActButton v-may:cook first @click="noting = true">Add a price</ActButton>
      </div>
    </div>
    <section v-if="noting" class="panel form" :aria-label="correcting ? 'Correct a price' : 'Add a price'">
      <NotePrice
        :key="correcting?.id ?? 0"
        :sort="whole.item.sort"
        :name="whole.item.name"
        :kind="whole.item.kind"
        :sources="sources"
        :correcting="correcting"
        @noted="correcting ? close() : undefined"
        @close="close"
      />
    </section>
    <div class="item">
      <section class="panel facts" aria-label="In short">
        <dl>
          <div>
            <dt>Latest, {{ dayText(whole.item.latest_on) }}</dt>
            <dd class="big">{{ perText(whole.item.latest) }}</dd>
            <dd class="quiet small">{{ otherText(whole.item.latest) }}</dd>
          </div>
          <div>
            <dt>Usual (median of the past year)</dt>
            <dd>{{ perText(whole.item.usual) }}</dd>
          </div>
          <div>
            <dt>Lowest, {{ dayText(whole.item.lowest_on) }}</dt>
            <dd>{{ perText(whole.item.lowest) }}</dd>
          </div>
        </dl>
        <SparkLine
          v-if="whole.item.history.length > 1"
          :history="whole.item.history"
          :wide="260"
          :high="80"
        />
      </section>
      <FryTests v-if="whole.item.sort === 'shop_pack'" :whole="whole" />
      <section class="panel all" aria-label="All prices">
        <h2>All prices</h2>
        <ul>
          <li v-for="quote in whole.quotes" :key="quote.id" :class="{ over: quote.overruled }">
            <p>
              <b>{{ perText(quote.per) }}</b>
              <span class="quiet"
                >{{ quote.typed
                }}<template v-if="quote.pack">, {{ weightText(quote.pack) }} pack</template></span
              >
            </p>
            <p>
              {{ quote.source }}, {{ dayText(quote.on) }}
              <span class="quiet small">by {{ quote.by }}</span>
            </p>
            <p v-if="quote.overruled" class="small">does not count: {{ quote.reason }}</p>
            <p v-else-if="quote.same_day" class="small care">
              one of two prices for that day and source; the later one counts
            </p>
            <ActButton v-if="!quote.overruled" v-may:cook small @click="correct(quote)">
              Correct<span class="unseen"> the price of {{ quote.on }}</span>
            </ActButton>
          </li>
        </ul>
      </section>
    </div>
  </template>
</template>

<style scoped>
.form {
  margin-bottom: 12px;
}

.item {
  display: grid;
  grid-template-columns: 320px minmax(0, 1fr);
  gap: 12px 16px;
  align-items: start;
}

.all {
  grid-column: 2;
  grid-row: 1 / span 2;
}

dl > div {
  margin-bottom: 8px;
}

dt {
  font-size: 13px;
  color: var(--quiet);
}

dd {
  font-weight: 650;
}

.big {
  font-size: 30px;
  font-weight: 800;
  font-stretch: 108%;
  line-height: 1.1;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 2px 14px;
  align-items: center;
  padding: 7px 0;
  border-top: 1px solid #e4e8e6;
}

li p:first-child span {
  margin-left: 8px;
}

.over b {
  text-decoration: line-through;
}

.over,
.care {
  color: var(--quiet);
}

.care {
  color: var(--care-ink);
}

@media (max-width: 979px) {
  .item {
    grid-template-columns: minmax(0, 1fr);
  }

  .all {
    grid-column: 1;
    grid-row: auto;
  }

  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
