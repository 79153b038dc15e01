<script setup lang="ts">
import { computed } from 'vue'

/** What hands do along the days: each word on the first line where it has room; else the dot alone. */
const props = defineProps<{
  hands: { at: string; words: string }[]
  part: (moment: string) => number
  isNarrow: boolean
}>()
const LINES = 3
const shown = computed(() => {
  const ends = Array<number>(LINES).fill(-1)
  return props.hands.map((one) => {
    const at = props.part(one.at)
    const half = (one.words.length * (props.isNarrow ? 0.02 : 0.0075)) / 2 + 0.004
    const row = ends.findIndex((end) => end <= at - half)
    if (row >= 0) ends[row] = at + half
    return { ...one, left: `${(at * 100).toFixed(2)}%`, row }
  })
})
</script>

<template>
  <ul class="hands" aria-label="Hands">
    <li v-for="one in shown" :key="one.at + one.words" :style="{ left: one.left }">
      <span class="dot" aria-hidden="true"></span>
      <span
        class="job"
        :class="{ unseen: one.row < 0 }"
        :style="one.row < 0 ? {} : { top: `${14 + 14 * one.row}px` }"
        >{{ one.words }}</span
      >
    </li>
  </ul>
</template>

<style scoped>
.hands {
  position: relative;
  height: 72px;
}

li {
  position: absolute;
  z-index: 2;
  top: 8px;
}

.dot {
  display: block;
  width: 12px;
  height: 12px;
  margin-left: -6px;
  border-radius: 50%;
  background: var(--ink);
}

.job {
  position: absolute;
  left: 0;
  transform: translateX(-50%);
  font-size: 11.5px;
  font-stretch: 84%;
  white-space: nowrap;
}
</style>
