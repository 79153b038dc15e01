<script setup lang="ts">
import { computed } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import type { CaseScale } from './caseScale'

/** Prices along the top of the rows, or the shop's kinds below them. */
const props = defineProps<{
  scale: CaseScale
  width: number
  shops?: { name: string; price: number; text: string }[]
}>()
const { money } = useUnits()
/** Names of the shop's kinds on rows of their own where they would run into one another. */
const names = computed(() => {
  const ends: number[] = []
  return [...(props.shops ?? [])]
    .sort((one, other) => one.price - other.price)
    .map((shop) => {
      const text = `${shop.name} ${shop.text}`
      const x = props.scale.at(shop.price)
      const length = text.length * 6.6 + 12
      const turned = x + length > props.width
      const [from, to] = turned ? [x - length, x] : [x, x + length]
      let row = ends.findIndex((end) => end < from)
      if (row < 0) row = ends.length
      ends[row] = to
      return { text, x, row, turned }
    })
})
const height = computed(() => (props.shops ? 20 * Math.max(1, ...names.value.map((one) => one.row + 1)) : 22))
</script>

<template>
  <svg :width="width" :height="height" aria-hidden="true">
    <template v-if="!shops">
      <text v-for="tick in scale.ticks" :key="tick" :x="scale.at(tick)" y="15" class="tick">
        {{ money(tick.toFixed(scale.decimals)) }}
      </text>
    </template>
    <text
      v-for="one in names"
      :key="one.text"
      :x="one.turned ? one.x - 4 : one.x + 4"
      :y="15 + one.row * 20"
      class="shop"
      :text-anchor="one.turned ? 'end' : 'start'"
    >
      {{ one.text }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
}

text {
  font-family: inherit;
  font-size: 13px;
  font-stretch: 88%;
}

.tick {
  text-anchor: middle;
  fill: var(--quiet);
}

.shop {
  font-weight: 640;
  fill: var(--ink);
}
</style>
