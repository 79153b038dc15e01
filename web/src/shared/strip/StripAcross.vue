<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { Batch } from '@/shared/api/client'
import { spanText } from '@/shared/quantity/when'
import { useUnits } from '@/shared/quantity/useUnits'
import { drawClimb, drawSteps, type Frame, lowestLabel, priceAcross } from './geometry'
import { colourOf } from './materials'
import StepHead from './StepHead.vue'
import { peelText, useStrip } from './useStrip'

const props = defineProps<{ batch: Batch; width: number }>()
const chosen = defineModel<number | null>('chosen', { required: true })
const batch = toRef(props, 'batch')
const { columns, steps, shop, topPrice } = useStrip(batch)
const { inUnit, otherText, cost, unit, unitWord } = useUnits()

const CLIMB = 132
const count = computed(() => columns.value.length + batch.value.strip.to_come.length)
const pitch = computed(() => Math.max(104, (props.width - 2) / count.value))
const frame = computed<Frame>(() => ({
  pitch: pitch.value,
  thickness: 150,
  climb: CLIMB,
  foot: 0,
  topPrice: topPrice.value,
  ease: Math.min(46, pitch.value * 0.36),
  labelGap: 14,
  down: false,
}))
const drawings = computed(() => drawSteps(steps.value, frame.value))
const foot = computed(() => Math.max(178, lowestLabel(drawings.value, frame.value) + 34) + CLIMB)
const climbFrame = computed(() => ({ ...frame.value, foot: foot.value }))
const climb = computed(() => drawClimb(steps.value, climbFrame.value))
const total = computed(() => pitch.value * count.value)
const room = computed(() => Math.floor((pitch.value - frame.value.ease - 16) / 5) + 2)
const priceAt = (price: number): number => priceAcross(price, climbFrame.value)
/** Above the climb, or below it where the shop's line would run through the figure. */
function labelAt(price: number): number {
  const above = priceAt(price) - 9
  const strikes = shop.value && Math.abs(priceAt(shop.value.price) - (above - 6)) < 14
  return strikes ? priceAt(price) + 22 : above
}
const hasDone = computed(() => columns.value.length > 1)

const rows = computed(() => [
  { word: 'of this step', cells: columns.value.map((c) => percent(c.kept_of_step)) },
  { word: 'of bought', cells: columns.value.map((c, index) => (index ? percent(c.kept_of_bought) : 'all')) },
  { word: 'spent', cells: columns.value.map((c) => dash(c.spent)) },
  { word: 'worth back', cells: columns.value.map((c) => dash(c.worth_back, '−')) },
])
const percent = (value: string | null): string => (value === null ? '–' : `${value} %`)
const dash = (money: string, sign = ''): string => (money === '0.00' ? '–' : `${sign}${money}`)
</script>

<template>
  <div
    class="scroll"
    :tabindex="total > width ? 0 : undefined"
    :role="total > width ? 'region' : undefined"
    aria-label="Steps"
  >
    <table :style="{ width: `${total}px` }">
      <caption class="unseen">
        Weight left in
        {{
          unit
        }}
        and price of a
        {{
          unitWord
        }}
        after each step
      </caption>
      <thead>
        <tr>
          <th v-for="(column, index) in columns" :key="index" scope="col">
            <StepHead v-model:chosen="chosen" :index="index" :count="columns.length">
              {{ column.label }}<span>{{ spanText(column.first_at, column.last_at) }}</span>
            </StepHead>
          </th>
          <th v-for="kind in batch.strip.to_come" :key="kind.kind" scope="col" class="coming">
            {{ kind.label }}<span>to come, or skip</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr class="unseen">
          <td v-for="(column, index) in columns" :key="index">
            {{ inUnit(column.weight_out) }} {{ unit }} left<template v-if="column.cost"
              >, {{ cost(column.cost) }} a {{ unitWord }}</template
            >
          </td>
        </tr>
        <tr aria-hidden="true">
          <td :colspan="count" class="drawing">
            <svg :width="total" :height="foot + 14" :viewBox="`0 0 ${total} ${foot + 14}`">
              <rect
                v-if="chosen !== null"
                :x="chosen * pitch"
                y="0"
                :width="pitch"
                :height="foot + 14"
                fill="#F1F4F2"
              />
              <path :d="climb.area" fill="#F8EAED" />
              <line
                v-for="index in count - 1"
                :key="index"
                :x1="index * pitch"
                :x2="index * pitch"
                y1="0"
                :y2="foot + 14"
                stroke="#DDE2DF"
              />
              <template v-if="shop">
                <line
                  x1="0"
                  :x2="total"
                  :y1="priceAt(shop.price)"
                  :y2="priceAt(shop.price)"
                  stroke="#1B1F1E"
                  stroke-width="1.6"
                  stroke-dasharray="7 5"
                />
                <text x="10" :y="priceAt(shop.price) - 6" class="shop halo">
                  {{ shop.name }} {{ shop.text }}
                </text>
              </template>
              <g v-for="(drawing, index) in drawings" :key="index">
                <path :d="drawing.ribbon" :fill="colourOf('lean')" />
                <path v-if="drawing.gain" :d="drawing.gain" :fill="colourOf('water')" />
                <g v-for="one in drawing.peels" :key="one.peel.name">
                  <path v-if="one.path" :d="one.path" :fill="colourOf(one.peel.material)" />
                  <text :x="one.label.x" :y="one.label.y + 4" class="peel halo">
                    {{ peelText(one.peel.name, one.peel.weight.toFixed(2), one.peel.gain, room) }}
                    <title>{{ one.peel.name }}</title>
                  </text>
                </g>
              </g>
              <path :d="climb.line" fill="none" stroke="#B5304A" stroke-width="3.5" />
              <g v-for="(column, index) in columns" :key="`text-${index}`">
                <text :x="(index + 1) * pitch - 12" y="34" class="weight">
                  {{ inUnit(column.weight_out) }}
                </text>
                <text :x="(index + 1) * pitch - 12" y="50" class="other">
                  {{ otherText(column.weight_out) }}
                </text>
                <text
                  v-if="column.cost"
                  :x="(index + 1) * pitch - 10"
                  :y="labelAt(Number(cost(column.cost)))"
                  class="price halo"
                  :class="{ last: hasDone && index === columns.length - 1 }"
                >
                  {{ cost(column.cost) }}
                </text>
              </g>
            </svg>
          </td>
        </tr>
        <tr v-for="row in rows" :key="row.word" class="ledger">
          <td v-for="(cell, index) in row.cells" :key="index" :class="{ lit: chosen === index }">
            <span class="row-word" :class="{ unseen: index > 0 }">{{ row.word }}</span>
            {{ cell }}
          </td>
          <td v-for="kind in batch.strip.to_come" :key="kind.kind"></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  position: relative;
}

table {
  border-collapse: collapse;
  table-layout: fixed;
}

th {
  padding: 0;
  text-align: left;
  vertical-align: top;
  border-left: 1px solid #dde2df;
  font-weight: 700;
  font-size: 16px;
}

th:first-child,
td:first-child {
  border-left: 0;
}

.coming {
  padding: 9px 10px;
  color: var(--quiet);
  font-weight: 500;
}

th span {
  display: block;
  font-weight: 450;
  font-size: 13px;
  font-stretch: 84%;
  color: var(--quiet);
}

.drawing {
  padding: 0;
  line-height: 0;
}

.ledger td {
  border-top: 1px solid #e4e8e6;
  border-left: 1px solid #dde2df;
  height: 28px;
  padding: 0 12px 0 4px;
  text-align: right;
  white-space: nowrap;
}

.ledger td.lit {
  background: #f1f4f2;
}

.row-word {
  float: left;
  padding-left: 8px;
  font-size: 13px;
  font-stretch: 76%;
  color: var(--quiet);
  line-height: 28px;
}

.ledger td {
  line-height: 28px;
}

svg text {
  font-family: inherit;
}

.weight {
  font-size: 17px;
  font-weight: 740;
  font-stretch: 108%;
  text-anchor: end;
  fill: #ffffff;
}

.other {
  font-size: 12px;
  text-anchor: end;
  fill: #ffffff;
  font-weight: 560;
}

.peel {
  font-size: 12.5px;
  font-stretch: 80%;
  fill: var(--ink);
}

.shop {
  font-size: 13px;
  font-weight: 640;
  font-stretch: 84%;
  fill: var(--ink);
}

.price {
  font-size: 16px;
  font-weight: 740;
  font-stretch: 108%;
  text-anchor: end;
  fill: var(--rose-deep);
}

.price.last {
  font-size: 22px;
  font-weight: 800;
  font-stretch: 115%;
}

.halo {
  paint-order: stroke;
  stroke: #ffffff;
  stroke-width: 4px;
  stroke-linejoin: round;
}
</style>
