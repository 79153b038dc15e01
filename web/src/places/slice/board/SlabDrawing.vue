<script setup lang="ts">
import { computed } from 'vue'

/** The piece as it lies on the slicer, cut from the left: slices cut so far, and about how many are to go. */
const props = defineProps<{
  cut: number
  toGo: number | null
  perSlice: string
  left: string
  right: string
}>()
const [LEFT, WIDE, TOP, HIGH, END, MOST] = [20, 700, 26, 96, 56, 90] as const
/** So many slices are drawn as lines at most; of more every second or third is. */
const lines = computed(() => {
  const whole = props.cut + (props.toGo ?? 0)
  const every = Math.max(1, Math.ceil(whole / MOST))
  const step = whole ? (WIDE - 2 * END) / whole : 0
  return Array.from({ length: Math.floor(whole / every) }, (_, at) => LEFT + END + step * every * (at + 1))
})
const at = computed(() => {
  const whole = props.cut + (props.toGo ?? 0)
  return whole ? LEFT + END + ((WIDE - 2 * END) * props.cut) / whole : LEFT + END
})
const words = computed(() =>
  props.cut
    ? `${props.cut} cut${props.toGo === null ? '' : `, about ${props.toGo} to go`}`
    : 'nothing cut yet',
)
</script>

<template>
  <svg viewBox="0 0 740 160" role="img" :aria-label="words">
    <rect :x="LEFT" :y="TOP" :width="WIDE" :height="22" rx="6" fill="#F1D9A6" />
    <rect :x="LEFT" :y="TOP + 22" :width="WIDE" :height="HIGH - 22" rx="6" fill="#E9B3BD" />
    <rect
      :x="LEFT + END"
      :y="TOP + 22"
      :width="Math.max(0, at - LEFT - END)"
      :height="HIGH - 22"
      fill="#D9657A"
    />
    <rect :x="at" :y="TOP + 22" :width="LEFT + WIDE - END - at" :height="HIGH - 22" fill="#E59AA8" />
    <line
      v-for="x in lines"
      :key="x"
      :x1="x"
      :x2="x"
      :y1="TOP"
      :y2="TOP + HIGH"
      stroke="#FFFFFF"
      stroke-width="1.5"
    />
    <line :x1="at" :x2="at" y1="14" :y2="TOP + HIGH + 12" stroke="#B5304A" stroke-width="3" />
    <text :x="Math.min(620, Math.max(120, at))" y="11" text-anchor="middle" class="cut">{{ words }}</text>
    <text :x="LEFT + 4" y="150" class="small">{{ left }}</text>
    <text :x="LEFT + WIDE / 2" y="150" text-anchor="middle" class="small">{{ perSlice }}</text>
    <text :x="LEFT + WIDE" y="150" text-anchor="end" class="small">{{ right }}</text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}

.cut {
  font-weight: 700;
  font-size: 15px;
  fill: var(--rose);
}

.small {
  font-size: 13px;
  fill: var(--quiet);
}
</style>
