<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { Column } from '@/shared/api/client'
import { spanText } from '@/shared/quantity/when'
import { useUnits } from '@/shared/quantity/useUnits'
import { drawClimb, drawFan, drawSteps, type Frame, priceAcross } from './geometry'
import { colourOf } from './materials'
import StepHead from './StepHead.vue'
import { peelText, useStrip, type Drawn } from './useStrip'

/** The strip on a phone: steps run down, ribbon and climb side by side. */
const props = defineProps<{ batch: Drawn; width: number }>()
const chosen = defineModel<number | null>('chosen', { required: true })
const batch = toRef(props, 'batch')
const { columns, steps, shops, topPrice, coming, comingSteps, ranges } = useStrip(batch)
const { inUnit, otherText, cost, unit, unitWord, percent } = useUnits()

const PITCH = 84
const HEADS = 88
const drawn = computed(() => props.width - 2 - HEADS)
const frame = computed<Frame>(() => ({
  pitch: PITCH,
  thickness: drawn.value * 0.44,
  climb: drawn.value * 0.4,
  foot: drawn.value * 0.56,
  topPrice: topPrice.value,
  ease: 26,
  labelGap: 12,
  down: true,
}))
const expected = computed(() => coming.value.filter((one) => one.expected))
const drawings = computed(() => drawSteps([...steps.value, ...comingSteps.value], frame.value))
const fan = computed(() =>
  drawFan(steps.value.at(-1)?.price ?? 0, steps.value.length, ranges.value, frame.value),
)
const climb = computed(() => drawClimb(steps.value, frame.value))
const count = computed(() => columns.value.length + expected.value.length)
const height = computed(() => PITCH * count.value)
const priceAt = (price: number): number => priceAcross(price, frame.value)

/** What left in a step, in few words: one by name, more by their number. */
function cameOff(column: Column): string {
  const [first, ...more] = column.peels
  if (!first) return ''
  if (more.length === 0) return peelText(first.name, inUnit(first.weight), first.gain, 16)
  return `${column.peels.length} kinds off`
}
</script>

<template>
  <div>
    <p class="keys narrow quiet small">
      <span>step</span><span>{{ unit }} left, what came off</span><span>price of a {{ unitWord }}</span>
    </p>
    <div class="body" :style="{ height: `${height}px` }">
      <ol>
        <li v-for="(column, index) in columns" :key="index" :style="{ height: `${PITCH}px` }">
          <StepHead v-model:chosen="chosen" :index="index" :count="columns.length">
            <b>{{ column.label }}</b>
            <span>{{ spanText(column.first_at, column.last_at) }}</span>
            <span v-if="column.kept_of_step">{{ percent(column.kept_of_step) }} kept</span>
            <span class="unseen">
              {{ inUnit(column.weight_out) }} {{ unit }} left<template v-if="column.cost"
                >, {{ cost(column.cost) }} a {{ unitWord }}</template
              >, {{ percent(column.kept_of_bought) }} of what was bought
            </span>
          </StepHead>
        </li>
        <li
          v-for="(one, index) in expected"
          :key="`to-come-${index}`"
          class="coming"
          :style="{ height: `${PITCH}px` }"
        >
          <b>{{ one.label }}</b>
          <span>expected</span>
          <span>{{ one.expected?.kept }} % kept</span>
        </li>
      </ol>
      <svg :width="drawn" :height="height" :viewBox="`0 0 ${drawn} ${height}`" aria-hidden="true">
        <path :d="climb.area" fill="#F8EAED" />
        <line
          v-for="index in count - 1"
          :key="index"
          x1="0"
          :x2="drawn"
          :y1="index * PITCH"
          :y2="index * PITCH"
          stroke="#DDE2DF"
        />
        <line
          v-for="shop in shops"
          :key="shop.entry"
          :x1="priceAt(shop.price)"
          :x2="priceAt(shop.price)"
          y1="0"
          :y2="height"
          stroke="#1B1F1E"
          stroke-width="1.6"
          stroke-dasharray="7 5"
        />
        <g v-for="(drawing, index) in drawings" :key="index">
          <path :d="drawing.ribbon" :fill="index < columns.length ? colourOf('lean') : '#F0CDD4'" />
          <path v-if="drawing.gain" :d="drawing.gain" :fill="colourOf('water')" />
          <path
            v-for="one in drawing.peels"
            :key="one.peel.name"
            :d="one.path || 'M0 0'"
            :fill="colourOf(one.peel.material)"
          />
        </g>
        <path :d="fan.area" fill="#EFC9D0" fill-opacity="0.75" />
        <path :d="fan.line" fill="none" stroke="#B5304A" stroke-width="2" stroke-dasharray="3 4" />
        <g v-for="(one, index) in expected" :key="`pale-${index}`">
          <text x="8" :y="(columns.length + index) * PITCH + 48" class="weight to-come">
            {{ one.expected ? inUnit(one.expected.weight.middle) : '' }}
          </text>
          <text
            v-if="one.expected"
            :x="priceAt(Number(cost(one.expected.price.low))) - 6"
            :y="(columns.length + index) * PITCH + 58"
            class="price halo to-come"
          >
            {{ cost(one.expected.price.middle) }}
          </text>
        </g>
        <path :d="climb.line" fill="none" stroke="#B5304A" stroke-width="3.5" />
        <g v-for="(column, index) in columns" :key="`text-${index}`">
          <text x="8" :y="index * PITCH + 48" class="weight">{{ inUnit(column.weight_out) }}</text>
          <text x="8" :y="index * PITCH + 63" class="other">{{ otherText(column.weight_out) }}</text>
          <text
            :x="(steps[index]!.weightOut / steps[0]!.weightIn) * frame.thickness + 8"
            :y="(index + 1) * PITCH - 8"
            class="peel halo"
          >
            {{ cameOff(column) }}
          </text>
          <text
            v-if="column.cost"
            :x="priceAt(Number(cost(column.cost))) - 8"
            :y="index * PITCH + 52"
            class="price halo"
          >
            {{ cost(column.cost) }}
          </text>
        </g>
      </svg>
    </div>
    <p v-if="shops.length" class="shop small">
      Dashed: {{ shops.map((shop) => `${shop.name}, ${shop.text} a ${unitWord}`).join('; ') }}
    </p>
    <p v-if="batch.strip.to_come.length && !expected.length" class="shop small quiet">
      To come, or skip: {{ batch.strip.to_come.map((kind) => kind.label.toLowerCase()).join(', ') }}
    </p>
  </div>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: 88px 1fr auto;
  padding: 8px 10px 6px;
  border-bottom: 1px solid var(--edge);
}

.body {
  position: relative;
}

svg {
  position: absolute;
  inset: 0 0 auto auto;
  pointer-events: none;
}

li + li {
  border-top: 1px solid #dde2df;
}

li :deep(button) {
  height: 100%;
  font-size: 14px;
}

li :deep(span) {
  display: block;
  font-size: 12.5px;
  font-stretch: 80%;
  color: var(--quiet);
}

svg text {
  font-family: inherit;
}

.weight {
  font-size: 16px;
  font-weight: 740;
  fill: #ffffff;
}

.coming {
  padding: 9px 10px;
  font-size: 14px;
  color: var(--quiet);
}

.weight.to-come,
.price.to-come {
  fill: var(--quiet);
  font-weight: 600;
}

.other {
  font-size: 11.5px;
  font-weight: 560;
  fill: #ffffff;
}

.peel {
  font-size: 12px;
  font-stretch: 78%;
  fill: var(--ink);
}

.price {
  font-size: 15px;
  font-weight: 760;
  text-anchor: end;
  fill: var(--rose-deep);
}

.shop {
  padding: 6px 12px;
  border-top: 1px solid #e4e8e6;
}
</style>
