<script setup lang="ts">
import { computed, toRef } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { drawClimb, drawFan, drawSteps, type Frame, lowestLabel, priceAcross } from './geometry'
import { colourOf } from './materials'
import { peelText, useStrip, type Drawn } from './useStrip'

/** Ribbon and climb of the strip across the page; what it says is in the table's cells too. */
const props = defineProps<{
  batch: Drawn
  pitch: number
  count: number
  chosen: number | null
}>()
const { columns, steps, shops, topPrice, coming, comingSteps, ranges } = useStrip(toRef(props, 'batch'))
const { inUnit, otherText, cost } = useUnits()

const CLIMB = 132
const frame = computed<Frame>(() => ({
  pitch: props.pitch,
  thickness: 150,
  climb: CLIMB,
  foot: 0,
  topPrice: topPrice.value,
  ease: Math.min(46, props.pitch * 0.36),
  labelGap: 14,
  down: false,
}))
const allDrawings = computed(() => drawSteps([...steps.value, ...comingSteps.value], frame.value))
const drawings = computed(() => allDrawings.value.slice(0, steps.value.length))
const paleDrawings = computed(() => allDrawings.value.slice(steps.value.length))
const foot = computed(() => Math.max(178, lowestLabel(drawings.value, frame.value) + 34) + CLIMB)
const climbFrame = computed(() => ({ ...frame.value, foot: foot.value }))
const climb = computed(() => drawClimb(steps.value, climbFrame.value))
const fan = computed(() =>
  drawFan(steps.value.at(-1)?.price ?? 0, steps.value.length, ranges.value, climbFrame.value),
)
const final = computed(() => ranges.value.at(-1) ?? null)
const total = computed(() => props.pitch * props.count)
/** Letters that fit beside a peel; the last column's may run on into the empty one to come. */
function roomIn(index: number): number {
  const runsOn = index === columns.value.length - 1 && coming.value.length > 0 && !ranges.value.length
  return Math.floor((props.pitch * (runsOn ? 2 : 1) - frame.value.ease - 16) / 5) + 2
}
const priceAt = (price: number): number => priceAcross(price, climbFrame.value)
/** Above the climb, or below it where the shop's line would run through the figure. */
function labelAt(price: number): number {
  const above = priceAt(price) - 9
  const strikes = shops.value.some((shop) => Math.abs(priceAt(shop.price) - (above - 6)) < 14)
  return strikes ? priceAt(price) + 22 : above
}
/** The price to come and its range stand above the fan, or below it where a shop's line would run through. */
const finalAt = computed(() => {
  if (!final.value) return 0
  const above = priceAt(final.value.high) - 24
  const strikes = shops.value.some((shop) => {
    const line = priceAt(shop.price)
    return line > above - 18 && line < above + 20
  })
  return strikes ? priceAt(final.value.low) + 22 : above
})
/** A shop's name stands above its line, or below it where a dearer one's line is close. */
function shopLabelAt(index: number): number {
  const [mine, above] = [shops.value[index], shops.value[index + 1]]
  if (!mine) return 0
  const close = above && priceAt(mine.price) - priceAt(above.price) < 20
  return priceAt(mine.price) + (close ? 15 : -6)
}
/** Weights stand in the ribbon; where it gets too thin for them, above it. */
const isThin = computed(() => {
  const heaviest = Math.max(...steps.value.map((step) => Math.max(step.weightIn, step.weightOut)))
  return steps.value.some((step) => (step.weightOut / heaviest) * frame.value.thickness < 58)
})
const head = computed(() => (isThin.value ? 42 : 0))
const hasDone = computed(() => columns.value.length > 1)
</script>

<template>
  <svg :width="total" :height="foot + 14 + head" :viewBox="`0 ${-head} ${total} ${foot + 14 + head}`">
    <rect
      v-if="chosen !== null"
      :x="chosen * pitch"
      :y="-head"
      :width="pitch"
      :height="foot + 14 + head"
      fill="#F1F4F2"
    />
    <path :d="climb.area" fill="#F8EAED" />
    <line
      v-for="index in count - 1"
      :key="index"
      :x1="index * pitch"
      :x2="index * pitch"
      :y1="-head"
      :y2="foot + 14"
      stroke="#DDE2DF"
    />
    <template v-for="(shop, index) in shops" :key="shop.entry">
      <line
        x1="0"
        :x2="total"
        :y1="priceAt(shop.price)"
        :y2="priceAt(shop.price)"
        stroke="#1B1F1E"
        stroke-width="1.6"
        stroke-dasharray="7 5"
      />
      <text x="10" :y="shopLabelAt(index)" class="shop halo">{{ shop.name }} {{ shop.text }}</text>
    </template>
    <g v-for="(drawing, index) in drawings" :key="index">
      <path :d="drawing.ribbon" :fill="colourOf('lean')" />
      <path v-if="drawing.gain" :d="drawing.gain" :fill="colourOf('water')" />
      <g v-for="one in drawing.peels" :key="one.peel.name">
        <path v-if="one.path" :d="one.path" :fill="colourOf(one.peel.material)" />
        <text :x="one.label.x" :y="one.label.y + 4" class="peel halo">
          {{ peelText(one.peel.name, one.peel.weight.toFixed(2), one.peel.gain, roomIn(index)) }}
          <title>{{ one.peel.name }}</title>
        </text>
      </g>
    </g>
    <g v-for="(drawing, index) in paleDrawings" :key="`pale-${index}`">
      <path :d="drawing.ribbon" fill="#F0CDD4" />
      <path v-if="drawing.gain" :d="drawing.gain" fill="#D3E3EF" />
    </g>
    <path :d="fan.area" fill="#EFC9D0" fill-opacity="0.75" />
    <path :d="fan.line" fill="none" stroke="#B5304A" stroke-width="2" stroke-dasharray="3 4" />
    <path :d="climb.line" fill="none" stroke="#B5304A" stroke-width="3.5" />
    <g v-for="(column, index) in columns" :key="`text-${index}`">
      <text :x="(index + 1) * pitch - 12" :y="isThin ? -23 : 34" class="weight" :class="{ above: isThin }">
        {{ inUnit(column.weight_out) }}
      </text>
      <text :x="(index + 1) * pitch - 12" :y="isThin ? -8 : 50" class="other" :class="{ above: isThin }">
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
    <g v-for="(one, index) in coming" :key="`to-come-${index}`">
      <text
        v-if="one.expected"
        :x="(columns.length + index + 1) * pitch - 12"
        :y="isThin ? -23 : 34"
        class="weight to-come"
      >
        {{ inUnit(one.expected.weight.middle) }}
      </text>
    </g>
    <template v-if="final">
      <text :x="total - 10" :y="finalAt" class="price halo">
        {{ final.middle.toFixed(2) }}
      </text>
      <text :x="total - 10" :y="finalAt + 16" class="range halo">
        {{ final.low.toFixed(2) }} to {{ final.high.toFixed(2) }}
      </text>
    </template>
  </svg>
</template>

<style scoped>
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

.weight.above {
  fill: var(--ink);
}

.weight.to-come {
  fill: var(--quiet);
  font-weight: 600;
}

.range {
  font-size: 12.5px;
  font-stretch: 84%;
  text-anchor: end;
  fill: var(--rose-deep);
}

.other.above {
  fill: var(--quiet);
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
</style>
