<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { computed } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import LoadState from '@/shared/ui/LoadState.vue'
import BooksHead from './BooksHead.vue'
import ForecastKinds from './ForecastKinds.vue'

/** How often the 80 % range held, from the kitchen's own record, nothing left out. */
const { costText, cost, percent, unitWord } = useUnits()
const { data, error, refetch } = useKitchenQuery('calibration', '/calibration')
const WIDE = 360
const at = (part: string): number => (Number(part) / 100) * WIDE
const verdict = computed(() => {
  const all = data.value?.all
  if (!all?.low || !all.high) return ''
  if (Number(all.high) < 80) return 'The ranges have been too narrow.'
  if (Number(all.low) > 80) return 'The ranges have been wider than needed.'
  return all.is_enough ? 'The ranges are as good as they claim.' : 'Too few to say yet.'
})
/** Where the range and the truth lie on one line of prices. */
function line(one: Schemas['ScoredOut']) {
  const [low, high] = [Number(cost(one.price.low)), Number(cost(one.price.high))]
  const room = (high - low) * 1.5 || 1
  const middle = (low + high) / 2
  const x = (price: number): number => Math.min(96, Math.max(4, 50 + ((price - middle) / room) * 50))
  return { low: x(low), high: x(high), true: x(Number(cost(one.true))) }
}
const came = { held: 'held', above: 'cost more', below: 'cost less' }
</script>

<template>
  <BooksHead title="How good forecasts were" />
  <ForecastKinds />
  <LoadState v-if="!data" :error="error" what="the forecasts" @retry="refetch()" />
  <p v-else-if="!data.all.count" class="panel empty">
    No forecast can be checked yet. One is saved with each weighing and checked when its batch is finished.
    <template v-if="data.waiting">{{ data.waiting }} batches are waiting.</template>
  </p>
  <template v-else>
    <section class="panel all" aria-label="In short">
      <p class="big">{{ data.all.held }} of {{ data.all.count }}</p>
      <p>
        forecasts of a sliced {{ unitWord }}’s price were right: <b>{{ percent(data.all.held_part) }}</b>,
        expected 80 %. The true share is likely between {{ data.all.low }} and {{ percent(data.all.high) }}.
        <b>{{ verdict }}</b>
      </p>
      <p class="quiet small">
        From {{ data.batches }} finished batches; {{ data.waiting }} are under way. Forecasts from one batch
        are not independent, so this interval is a little too narrow. The middle was typically
        {{ percent(data.all.off) }} off. Every saved forecast counts; for a corrected entry, the last one.
      </p>
    </section>
    <section class="panel" aria-label="By step">
      <h2>By the step they were made at</h2>
      <LedgerTable>
        <thead>
          <tr>
            <th scope="col">Made</th>
            <th scope="col" class="right">Held</th>
            <th scope="col">Share that held (bar: likely range; dashed line: 80 %)</th>
            <th scope="col" class="right">Cost more / less</th>
            <th scope="col" class="right">Off by</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="stage in data.stages" :key="stage.stage">
            <th scope="row">{{ stage.label }}</th>
            <td class="right">{{ stage.held }} of {{ stage.count }}</td>
            <td>
              <svg
                v-if="stage.low && stage.high && stage.held_part"
                :viewBox="`-4 0 ${WIDE + 8} 24`"
                role="img"
                :aria-label="`${stage.held_part} percent, between ${stage.low} and ${stage.high}`"
              >
                <rect x="0" y="10" :width="WIDE" height="4" fill="#E4E8E6" />
                <rect
                  :x="at(stage.low)"
                  y="6"
                  :width="at(stage.high) - at(stage.low)"
                  height="12"
                  fill="#C5D8D0"
                />
                <rect :x="at(stage.held_part) - 2" y="3" width="4" height="18" fill="#1A6B50" />
                <line :x1="at('80')" :x2="at('80')" y1="0" y2="24" stroke="#1B1F1E" stroke-dasharray="4 3" />
              </svg>
            </td>
            <td class="right">{{ stage.above }} / {{ stage.below }}</td>
            <td class="right">{{ percent(stage.off) }}</td>
          </tr>
        </tbody>
      </LedgerTable>
    </section>
    <section class="panel" aria-label="One by one">
      <h2>One by one, latest first</h2>
      <ul>
        <li v-for="one in data.scored" :key="`${one.batch} ${one.stage}`">
          <RouterLink :to="{ name: 'strip', params: { code: one.batch } }">{{ one.batch }}</RouterLink>
          <span>{{ one.stage }}</span>
          <span class="track" aria-hidden="true">
            <i :style="{ left: `${line(one).low}%`, right: `${100 - line(one).high}%` }" />
            <b :style="{ left: `${line(one).true}%` }" :class="one.came" />
          </span>
          <span class="right">{{ costText(one.price.low) }} to {{ costText(one.price.high) }}</span>
          <span class="right"
            ><b>{{ costText(one.true) }}</b></span
          >
          <span :class="{ care: one.came !== 'held' }">{{ came[one.came] }}</span>
        </li>
      </ul>
    </section>
  </template>
</template>

<style scoped>
section {
  margin-bottom: 12px;
}

.all {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 4px 20px;
  align-items: center;
}

.all > p:last-child {
  grid-column: 2;
}

.big {
  font-size: 46px;
  font-weight: 800;
  font-stretch: 112%;
  line-height: 1;
  grid-row: 1 / span 2;
}

.empty {
  padding: 40px 16px;
  text-align: center;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  text-align: left;
  padding: 4px 14px 4px 0;
  border-bottom: 1px solid #e4e8e6;
}

thead th {
  font-size: 13px;
  font-weight: 500;
  color: var(--quiet);
}

.right {
  text-align: right;
}

svg {
  display: block;
  width: 100%;
  min-width: 110px;
  max-width: 380px;
}

li {
  display: grid;
  grid-template-columns: 60px 120px minmax(80px, 1fr) 130px 70px 110px;
  gap: 12px;
  align-items: center;
  padding: 4px 0;
  border-top: 1px solid #e4e8e6;
}

.track {
  position: relative;
  height: 18px;
}

.track i {
  position: absolute;
  top: 3px;
  bottom: 3px;
  background: #efc9d0;
}

.track b {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 4px;
  margin-left: -2px;
  background: var(--good);
}

.track b.above,
.track b.below {
  background: var(--care);
}

.care {
  color: var(--care-ink);
  font-weight: 600;
}

@media (max-width: 719px) {
  .all {
    grid-template-columns: minmax(0, 1fr);
  }

  .all > p:last-child {
    grid-column: 1;
  }

  li {
    grid-template-columns: 52px 1fr 90px;
  }

  .track {
    grid-column: 1 / -1;
    grid-row: 2;
  }

  td:nth-child(4),
  th:nth-child(4) {
    display: none;
  }
}
</style>
