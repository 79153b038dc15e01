<script setup lang="ts">
import { useUnits } from '@/shared/quantity/useUnits'
import { useForecastKinds } from './useBooks'

/** Every kind of forecast: how often it held, and how often it should. */
const { data } = useForecastKinds()
const { unitWord } = useUnits()
const WIDE = 300
const at = (percent: string): number => (Number(percent) / 100) * WIDE
</script>

<template>
  <section v-if="data" class="panel" aria-label="Every kind of forecast">
    <h2>Every kind of forecast</h2>
    <p class="quiet small">
      The mark is the share that held, the bar its likely range, the dashed line what it should be.
    </p>
    <ul>
      <li v-for="kind in data.kinds" :key="kind.key">
        <span>{{ kind.label.replace('pound', unitWord) }}</span>
        <svg
          v-if="kind.low && kind.high && kind.held_part"
          :viewBox="`-4 0 ${WIDE + 8} 24`"
          role="img"
          :aria-label="`${kind.held_part} percent, between ${kind.low} and ${kind.high}, should be ${kind.expected}`"
        >
          <rect x="0" y="10" :width="WIDE" height="4" fill="#E4E8E6" />
          <rect :x="at(kind.low)" y="6" :width="at(kind.high) - at(kind.low)" height="12" fill="#C5D8D0" />
          <rect :x="at(kind.held_part) - 2" y="3" width="4" height="18" fill="#1A6B50" />
          <line
            :x1="at(kind.expected)"
            :x2="at(kind.expected)"
            y1="0"
            y2="24"
            stroke="#1B1F1E"
            stroke-dasharray="4 3"
          />
        </svg>
        <span v-else class="quiet">none to check yet</span>
        <span v-if="kind.count"
          ><b>{{ kind.held }} of {{ kind.count }}</b
          ><template v-if="kind.early || kind.late"
            >; {{ kind.early }} earlier, {{ kind.late }} later</template
          ></span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 12px;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(140px, 1fr) minmax(120px, auto);
  gap: 4px 16px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid #e4e8e6;
}

svg {
  width: 100%;
  max-width: 320px;
}

@media (max-width: 719px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
