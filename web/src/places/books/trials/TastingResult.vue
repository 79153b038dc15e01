<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'

/** Plates on one line, the best first: the mean with its range, and what is more than chance in words. */
const props = defineProps<{ result: Schemas['ScaleResultOut']; isPart?: boolean }>()
const WIDE = 240
const ends = computed<[number, number]>(() => (props.isPart ? [0, 1] : [1, 9]))
const x = (score: string): number => {
  const [low, high] = ends.value
  return Math.min(WIDE, Math.max(0, ((Number(score) - low) / (high - low)) * WIDE))
}
const text = (score: string): string =>
  props.isPart ? `${Math.round(Number(score) * 100)} %` : Number(score).toFixed(1)
const shades = ['#8E1F38', '#D9657A', '#6F8F8A', '#B7791F', '#5A6461', '#1B1F1E']
</script>

<template>
  <div class="result">
    <h3>{{ result.label }}</h3>
    <ul>
      <li v-for="(plate, at) in result.plates" :key="plate.letter">
        <span
          ><b>{{ plate.letter }}</b> {{ plate.what }}</span
        >
        <svg :viewBox="`-6 0 ${WIDE + 12} 22`" role="img" :aria-label="`${text(plate.mean)}`">
          <line x1="0" :x2="WIDE" y1="11" y2="11" stroke="#E4E8E6" stroke-width="2" />
          <rect
            v-if="plate.low && plate.high"
            :x="x(plate.low)"
            y="4"
            :width="Math.max(x(plate.high) - x(plate.low), 2)"
            height="14"
            fill="#F6DEE2"
          />
          <circle :cx="x(plate.mean)" cy="11" r="6" :fill="shades[at % shades.length]" />
        </svg>
        <b class="mean">{{ text(plate.mean) }}</b>
      </li>
    </ul>
    <p v-for="said in result.said" :key="said">{{ said }}</p>
  </div>
</template>

<style scoped>
.result {
  margin: 12px 0;
}

h3 {
  font-size: 15px;
  margin: 0 0 4px;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(120px, 260px) 48px;
  gap: 10px;
  align-items: center;
}

svg {
  width: 100%;
}

.mean {
  text-align: right;
}
</style>
