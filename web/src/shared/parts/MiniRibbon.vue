<script setup lang="ts">
import { computed } from 'vue'

/** How far a batch's ribbon has run: thick as what is kept of the bought weight, a step for each column. */
const props = defineProps<{ labels: string[]; kept: string[]; next: string | null }>()
const PITCH = 74
const THICK = 34
const steps = computed(() =>
  props.kept.map((kept, index) => {
    const height = (Number(kept) / 100) * THICK
    const before = (Number(props.kept[index - 1] ?? kept) / 100) * THICK
    const x = index * PITCH
    return {
      label: props.labels[index] ?? '',
      x,
      path: `M${x} 0H${x + PITCH}V${height}H${x + 24}C${x + 12} ${height} ${x + 12} ${before} ${x} ${before}Z`,
    }
  }),
)
const width = computed(() => (steps.value.length + (props.next ? 1 : 0)) * PITCH)
</script>

<template>
  <svg
    :viewBox="`0 0 ${Math.max(width, 7 * PITCH)} 58`"
    preserveAspectRatio="xMinYMin"
    :aria-label="labels.join(', ')"
    role="img"
  >
    <g v-for="step in steps" :key="step.x">
      <path :d="step.path" fill="#D9657A" />
      <text :x="step.x + 4" y="53">{{ step.label }}</text>
    </g>
    <line
      v-for="step in steps.slice(1)"
      :key="`l${step.x}`"
      :x1="step.x"
      :x2="step.x"
      y1="0"
      y2="40"
      stroke="#fff"
    />
    <template v-if="next">
      <rect
        :x="steps.length * PITCH + 1"
        y="0.75"
        :width="PITCH - 2"
        :height="(Number(kept[kept.length - 1]) / 100) * THICK - 1.5"
        fill="none"
        stroke="#8B9692"
        stroke-width="1.5"
        stroke-dasharray="5 4"
      />
      <text :x="steps.length * PITCH + 4" y="53" class="next">{{ next }}?</text>
    </template>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: auto;
  max-height: 66px;
}

text {
  font-family: inherit;
  font-size: 13px;
  font-stretch: 82%;
  fill: var(--ink);
}

@media (max-width: 979px) {
  text {
    font-size: 17px;
    font-stretch: 66%;
  }
}

.next {
  fill: var(--quiet);
}
</style>
