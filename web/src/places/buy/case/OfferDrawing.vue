<script setup lang="ts">
import { computed } from 'vue'
import type { CaseScale } from './caseScale'

/** From the tag (ring) to the expected price of a sliced pound (bar), with the 80 % range behind it. */
const props = defineProps<{
  scale: CaseScale
  width: number
  tag: number
  middle: number
  low: number
  high: number
  text: string
  shops: { name: string; price: number }[]
  against: string | null
}>()
const HIGH = 64
/** The figure stands right of its bar, or left where the room ends or a shop's line would run through it. */
const onLeft = computed(() => {
  const x = props.scale.at(props.middle)
  const struck = (from: number, to: number): boolean =>
    props.shops.some((shop) => props.scale.at(shop.price) > from && props.scale.at(shop.price) < to)
  if (x > props.width - 60) return true
  return struck(x + 4, x + 54) && !struck(x - 54, x - 4)
})
</script>

<template>
  <svg :width="width" :height="HIGH" aria-hidden="true">
    <line
      v-for="tick in scale.ticks"
      :key="tick"
      :x1="scale.at(tick)"
      :x2="scale.at(tick)"
      y1="0"
      :y2="HIGH"
      stroke="#E4E8E6"
    />
    <line
      v-for="shop in shops"
      :key="shop.name"
      :x1="scale.at(shop.price)"
      :x2="scale.at(shop.price)"
      y1="0"
      :y2="HIGH"
      stroke="#1B1F1E"
      :stroke-width="shop.name === against ? 2 : 1.3"
      :stroke-dasharray="shop.name === against ? '7 3' : '5 4'"
    />
    <rect
      :x="scale.at(low)"
      y="24"
      :width="Math.max(scale.at(high) - scale.at(low), 2)"
      height="27"
      fill="#EFC9D0"
      fill-opacity="0.8"
    />
    <line
      :x1="scale.at(tag)"
      :x2="scale.at(middle)"
      y1="37"
      y2="37"
      stroke="#D9657A"
      stroke-width="3"
      stroke-opacity="0.65"
    />
    <circle :cx="scale.at(tag)" cy="37" r="5.5" fill="#fff" stroke="#B5304A" stroke-width="2.5" />
    <rect :x="scale.at(middle) - 2.5" y="20" width="5" height="35" fill="#B5304A" />
    <text
      :x="scale.at(middle) + (onLeft ? -7 : 8)"
      y="16"
      class="halo"
      :text-anchor="onLeft ? 'end' : 'start'"
    >
      {{ text }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
}

text {
  font-family: inherit;
  font-size: 17px;
  font-weight: 760;
  font-stretch: 108%;
  fill: var(--rose-deep);
}
</style>
