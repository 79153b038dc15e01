<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import { computed } from 'vue'
import type { Judged } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** Price of a pound against the number of slabs, the limit where no more fit, and the shop's level. */
const props = defineProps<{ judged: Judged }>()
const { cost, costText, unitWord } = useUnits()
const isForecast = computed(() => props.judged.is_forecast)
const size = computed(() => props.judged.size)
const shop = computed(() => props.judged.shops[0] ?? null)

const [WIDE, HIGH, LEFT, TOP, FOOT] = [290, 170, 34, 22, 142]
const points = computed(() => size.value?.points ?? [])
/** So much is drawn: the wall, and a little beyond it. */
const most = computed(() => Math.max((size.value?.wall ?? points.value.length) + 1, points.value.length, 2))
const prices = computed(() => [
  ...points.value.map((point) => Number(cost(point.unit_cost))),
  ...(shop.value ? [Number(cost(shop.value.unit_cost))] : []),
])
const x = (slabs: number): number => LEFT + ((slabs - 0.5) / most.value) * (WIDE - LEFT - 6)
function y(price: number): number {
  const [low, high] = [Math.min(...prices.value), Math.max(...prices.value)]
  const span = high - low || 1
  return FOOT - 8 - ((price - low) / span) * (FOOT - TOP - 16)
}
const line = computed(() =>
  points.value
    .map((point, index) => `${index ? 'L' : 'M'}${x(point.slabs)} ${y(Number(cost(point.unit_cost)))}`)
    .join(''),
)
const crossing = computed(() => {
  const from = size.value?.crossings[0]
  if (!shop.value || from === undefined) return null
  if (from === null) return `At any number it costs more than the ${shop.value.name}.`
  if (from === 1) return `Cheaper than the ${shop.value.name} from the first slab.`
  const beyond = size.value?.wall != null && from > size.value.wall
  return `Cheaper than the ${shop.value.name} from ${from} slabs up${beyond ? ', more than fit' : ''}.`
})
</script>

<template>
  <section v-if="size" class="panel" aria-label="How many slabs at once">
    <h2>How many slabs at once</h2>
    <svg :viewBox="`0 0 ${WIDE} ${HIGH}`" aria-hidden="true">
      <template v-if="size.wall">
        <rect
          :x="x(size.wall + 0.5)"
          :width="WIDE - x(size.wall + 0.5)"
          y="4"
          :height="FOOT - 4"
          fill="#E4E8E6"
        />
        <text :x="WIDE - 4" y="16" class="note end">{{ size.wall_is }} is full</text>
      </template>
      <template v-if="shop">
        <line
          :x1="LEFT"
          :x2="WIDE"
          :y1="y(Number(cost(shop.unit_cost)))"
          :y2="y(Number(cost(shop.unit_cost)))"
          stroke="#1B1F1E"
          stroke-dasharray="6 4"
        />
        <text :x="WIDE - 4" :y="y(Number(cost(shop.unit_cost))) - 5" class="note end halo">
          {{ shop.name }}
        </text>
      </template>
      <line :x1="LEFT" :x2="WIDE" :y1="FOOT" :y2="FOOT" stroke="#8B9692" />
      <path :d="line" fill="none" stroke="#B5304A" stroke-width="2.5" />
      <g v-for="point in points" :key="point.slabs">
        <circle
          :cx="x(point.slabs)"
          :cy="y(Number(cost(point.unit_cost)))"
          :r="point.slabs === size.slabs ? 6 : 3.5"
          :fill="point.slabs === size.slabs ? '#B5304A' : '#FFFFFF'"
          stroke="#B5304A"
          stroke-width="1.6"
        />
        <text :x="x(point.slabs)" :y="FOOT + 16" class="note middle">{{ point.slabs }}</text>
        <text
          v-if="point.slabs === 1 || point.slabs === size.slabs || point.slabs === points.length"
          :x="x(point.slabs)"
          :y="y(Number(cost(point.unit_cost))) - 10"
          class="note middle halo strong"
        >
          {{ costText(point.unit_cost) }}
        </text>
      </g>
    </svg>
    <p v-if="crossing">{{ crossing }}</p>
    <p class="quiet small">
      Work: {{ size.work }}. Fuel and overhead are paid once per batch.{{
        isForecast ? ' Prices by forecast.' : ''
      }}
    </p>
    <p class="quiet small">
      <template v-if="!size.wall">
        <RouterLink :to="{ name: 'kitchen' }">Set how many slabs fit</RouterLink>, to see the limit.
      </template>
    </p>
    <LedgerTable class="unseen">
      <caption>
        Price of a
        {{
          unitWord
        }}
        by number of slabs
      </caption>
      <tbody>
        <tr v-for="point in points" :key="point.slabs">
          <th scope="row">{{ point.slabs }}</th>
          <td>{{ costText(point.unit_cost) }}</td>
        </tr>
      </tbody>
    </LedgerTable>
  </section>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: auto;
}

.note {
  font-family: inherit;
  font-size: 12px;
  fill: var(--quiet);
}

.strong {
  fill: var(--ink);
  font-weight: 680;
}

.end {
  text-anchor: end;
}

.middle {
  text-anchor: middle;
}

.halo {
  paint-order: stroke;
  stroke: #ffffff;
  stroke-width: 3px;
}
</style>
