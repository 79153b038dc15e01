<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'

/** Where a weight falls among the kitchen's own past yields: a band of what is usual, a tick for each batch. */
const props = defineProps<{ usual: Schemas['UsualOut']; kept: string }>()
const WIDTH = 470
const span = computed(() => {
  const all = [props.usual.low, props.usual.high, props.kept, ...props.usual.kept].map(Number)
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const room = Math.max(2, (high - low) * 0.15)
  return { low: low - room, high: high + room }
})
const at = (value: string): number =>
  ((Number(value) - span.value.low) / (span.value.high - span.value.low)) * WIDTH
const whole = (value: string): string => `${Math.round(Number(value))} %`
const here = computed(() => at(props.kept))
</script>

<template>
  <figure>
    <svg
      :viewBox="`-6 0 ${WIDTH + 12} 62`"
      role="img"
      :aria-label="`usual is ${whole(usual.low)} to ${whole(usual.high)}`"
    >
      <line x1="0" :x2="WIDTH" y1="30" y2="30" stroke="#4a5457" stroke-width="2" />
      <rect :x="at(usual.low)" y="20" :width="at(usual.high) - at(usual.low)" height="20" fill="#2f5f4b" />
      <line
        v-for="(one, place) in usual.kept"
        :key="place"
        :x1="at(one)"
        :x2="at(one)"
        y1="20"
        y2="40"
        stroke="#86b5a0"
        stroke-width="2"
      />
      <line :x1="here" :x2="here" y1="14" y2="46" stroke="#e0607b" stroke-width="3" />
      <path :d="`M${here - 9} 0H${here + 9}L${here} 13Z`" fill="#e0607b" />
      <text :x="at(usual.low)" y="58" text-anchor="middle">{{ whole(usual.low) }}</text>
      <text :x="at(usual.high)" y="58" text-anchor="middle">{{ whole(usual.high) }}</text>
    </svg>
    <figcaption>{{ usual.label }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  margin: 0;
}

svg {
  flex: 0 1 480px;
  min-width: 0;
  max-width: 100%;
}

text {
  fill: #b9c3bf;
  font-family: inherit;
  font-size: 15px;
}

figcaption {
  color: #b9c3bf;
}
</style>
