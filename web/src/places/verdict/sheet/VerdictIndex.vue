<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { vMay } from '@/shared/kitchen/vMay'
import { keepPreviousData } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { type Schemas } from '@/shared/api/client'
import { chanceText, chanceTone } from '@/shared/quantity/chance'
import { ofStage, useUnits, without } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'

/** What finished batches came to against the shop, newest first, and what is under way by its forecast. */
type Finished = Schemas['SummaryOut']
const route = useRoute()
const page = computed(() => Math.max(1, Number(route.query['page']) || 1))
const { data, error, refetch } = useKitchenQuery(
  'verdicts',
  '/verdicts',
  () => ({ query: { page: page.value } }),
  { placeholderData: keepPreviousData },
)
const { money, costText, unitWord } = useUnits()
const toneOf = (batch: Finished): string => {
  if (batch.saved_on_batch == null || Number(batch.saved_on_batch) === 0) return 'open'
  return batch.saved_on_batch.startsWith('-') ? 'dear' : 'good'
}
function cameTo(batch: Finished): string {
  const saved = batch.saved_on_batch
  if (saved == null) return 'no shop pack to compare with'
  if (Number(saved) === 0) return 'cost the same'
  return `${money(without(saved))} ${saved.startsWith('-') ? 'more' : 'less'} on the batch`
}
const isFirst = computed(() => (data.value?.page ?? 1) === 1)
</script>

<template>
  <div class="head">
    <h1>Verdict</h1>
    <span class="quiet">what each batch came to, compared with the shop</span>
    <div class="acts">
      <ActLink v-may:cook :to="{ name: 'import' }">Import a batch</ActLink>
      <ActLink v-may:cook first :to="{ name: 'start' }">Start a batch</ActLink>
    </div>
  </div>
  <LoadState v-if="!data" :error="error" what="the verdicts" @retry="refetch()" />
  <div v-else class="lists">
    <section aria-label="Finished">
      <h2>Finished</h2>
      <ul v-if="data.finished.length" class="rows">
        <li v-for="batch in data.finished" :key="batch.code" class="panel row">
          <div>
            <h3>
              <RouterLink :to="{ name: 'strip', params: { code: batch.code } }">{{ batch.name }}</RouterLink>
            </h3>
            <p class="small cut">
              <span class="badge">{{ batch.code }}</span> {{ batch.cut }}, finished
              {{ dayText(batch.last_at) }}
            </p>
          </div>
          <div class="figures">
            <p class="verdict" :class="toneOf(batch)">
              <span v-if="toneOf(batch) !== 'open'" aria-hidden="true">{{
                toneOf(batch) === 'good' ? '▼' : '▲'
              }}</span>
              {{ cameTo(batch) }}
            </p>
            <p class="small">
              <template v-if="batch.cost">
                <b>{{ costText(batch.cost) }}</b> a {{ ofStage(batch.stage, unitWord) }}</template
              ><template v-if="batch.shop_name">, compared with the {{ batch.shop_name }}</template>
            </p>
          </div>
        </li>
      </ul>
      <p v-else class="panel">No batch is finished yet. What it came to will be here.</p>
      <nav v-if="data.pages > 1" class="pages" aria-label="Pages of finished batches">
        <ActLink v-if="page > 1" :to="{ query: { page: page - 1 } }">Newer</ActLink>
        <span class="quiet">page {{ data.page }} of {{ data.pages }}</span>
        <ActLink v-if="page < data.pages" :to="{ query: { page: page + 1 } }">Older</ActLink>
      </nav>
    </section>
    <section v-if="isFirst" aria-label="Under way, by forecast">
      <h2>Under way, by forecast</h2>
      <ul v-if="data.under_way.length" class="rows">
        <li v-for="batch in data.under_way" :key="batch.code" class="panel row">
          <div>
            <h3>
              <RouterLink :to="{ name: 'strip', params: { code: batch.code } }">{{ batch.name }}</RouterLink>
            </h3>
            <p class="small cut">
              <span class="badge">{{ batch.code }}</span> {{ batch.cut }}
            </p>
            <p v-if="batch.so_far" class="quiet small">
              so far {{ costText(batch.so_far) }} a {{ ofStage(batch.stage, unitWord) }}
            </p>
          </div>
          <div class="figures">
            <template v-if="batch.price && batch.low && batch.high">
              <p v-if="batch.chance !== null" class="verdict" :class="chanceTone(batch.chance)">
                {{ chanceText(batch.chance, `the ${batch.shop_name}`) }}
              </p>
              <p class="small">
                expected <b>{{ costText(batch.price) }}</b> a sliced {{ unitWord }}, 8 times out of 10
                {{ costText(batch.low) }} to {{ costText(batch.high) }}
              </p>
            </template>
            <p v-else class="quiet small">no forecast yet</p>
          </div>
        </li>
      </ul>
      <p v-else class="panel">Nothing is under way.</p>
      <p v-if="data.more_under_way">
        <ActLink :to="{ name: 'batches', query: { state: 'under-way', page: 2 } }"
          >{{ data.more_under_way }} more under way</ActLink
        >
      </p>
    </section>
  </div>
</template>

<style scoped>
.lists {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 20px;
  align-items: start;
}

.lists section {
  display: grid;
  gap: 10px;
}

.rows {
  display: grid;
  gap: 10px;
}

.row {
  display: grid;
  gap: 6px;
}

.cut {
  color: var(--ink);
}

.verdict {
  font-weight: 720;
  font-size: 18px;
}

.verdict.good {
  color: var(--good);
}

.verdict.dear {
  color: var(--rose-deep);
}

.pages {
  display: flex;
  gap: 12px;
  align-items: center;
}

@media (max-width: 899px) {
  .lists {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
