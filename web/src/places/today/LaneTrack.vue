<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { dayText } from '@/shared/quantity/when'
import { type Bar, type Drawn, layOut, partOf } from './lanes'

/** One lane: who lies there along the days, tasks as points, outlined where it is too full. */
const props = defineProps<{
  lane: Schemas['LaneOut']
  first: string
  days: number
  clashes: Schemas['ClashOut'][]
}>()
const drawn = computed(() => layOut(props.lane.bars, props.first, props.days))
const height = computed(() => Math.max(1, ...drawn.value.map((one) => one.row + 1)) * 30 + 10)
const tooFull = computed(() =>
  props.clashes
    .filter((one) => one.store === props.lane.name && one.store)
    .map(({ begins, ends }) => ({
      left: percent(Math.max(0, partOf(begins, props.first, props.days))),
      right: percent(Math.max(0, 1 - partOf(ends, props.first, props.days))),
    })),
)
/** Whether there is room for words: a stay of a few hours is a mark alone, named when pointed at. */
const hasRoom = (one: Drawn): boolean => (one.to - one.from) * props.days > 1.2
const percent = (part: number): string => `${(part * 100).toFixed(2)}%`
const marksOf = (bar: Bar): string => bar.marks.filter((mark) => mark !== 'lot').join(' · ')
const placeOf = (from: number, to: number, row: number): Record<string, string> => ({
  left: percent(from),
  width: percent(to - from),
  top: `${row * 30 + 5}px`,
})
function about(bar: Bar): string {
  if (bar.kind === 'packs')
    return [bar.words, bar.points[0] && `the first to be used by ${dayText(bar.points[0].at)}`]
      .filter(Boolean)
      .join(', ')
  const until = bar.ends ? `until ${dayText(bar.ends)}` : bar.is_planned ? '' : 'no end planned'
  const from = bar.is_planned ? `planned for ${dayText(bar.begins)}` : ''
  return [`${bar.code || bar.name} ${marksOf(bar)}`.trim(), bar.words, from, until].filter(Boolean).join(', ')
}
</script>

<template>
  <ul class="track" :style="{ height: `${height}px` }" :aria-label="lane.name || 'Not placed'">
    <li
      v-for="(one, at) in drawn"
      :key="at"
      class="bar"
      :class="[
        one.bar.kind,
        {
          planned: one.bar.is_planned && one.bar.code,
          mine: !one.bar.code && one.bar.kind !== 'packs',
          open: !one.bar.ends && one.to >= 1,
        },
      ]"
      :style="placeOf(one.from, one.to, one.row)"
      :title="about(one.bar)"
    >
      <RouterLink
        v-if="one.bar.kind === 'packs'"
        class="words"
        :to="{ name: 'slice' }"
        :aria-label="about(one.bar)"
        >{{ one.bar.words }}</RouterLink
      >
      <span v-else-if="!one.bar.code" class="words"
        ><template v-if="hasRoom(one)"
          ><b>{{ one.bar.name }}</b> {{ one.bar.words }}</template
        >&nbsp;</span
      >
      <RouterLink
        v-else
        class="words"
        :to="{ name: 'log', params: { code: one.bar.code } }"
        :aria-label="about(one.bar)"
        ><template v-if="hasRoom(one)"
          ><b>{{ one.bar.code }}</b> {{ marksOf(one.bar) }} {{ one.bar.words }}</template
        >&nbsp;</RouterLink
      >
    </li>
    <li v-for="(clash, at) in tooFull" :key="`c${at}`" class="clash" aria-hidden="true" :style="clash"></li>
    <template v-for="(one, at) in drawn" :key="`t${at}`">
      <li
        v-if="one.tail > one.to"
        class="tail"
        aria-hidden="true"
        :style="placeOf(one.to, one.tail, one.row)"
      ></li>
      <li
        v-for="(point, dot) in one.points"
        :key="dot"
        class="point"
        aria-hidden="true"
        :style="{ left: percent(point), top: `${one.row * 30 + 25}px` }"
      ></li>
    </template>
  </ul>
</template>

<style scoped>
.track {
  position: relative;
  min-height: 30px;
}

.bar {
  position: absolute;
  z-index: 1;
  height: 26px;
  border-radius: 3px;
  background: var(--rose);
  overflow: hidden;
}

.words {
  display: block;
  padding: 3px 8px;
  font-size: 12.5px;
  font-stretch: 88%;
  line-height: 20px;
  white-space: nowrap;
  text-decoration: none;
  color: var(--ink);
}

.bar.cure {
  background: #e39aa8;
}

.bar.wait {
  background: #d9dfdb;
}

.bar.dry {
  background: #8fb8d6;
}

.bar.hang {
  background: #6f8f8a;
}

.bar.hang .words {
  color: #0e1413;
}

.bar.packs {
  border: 1px solid #b9c3bd;
  background: #fff;
}

.bar.mine {
  background: #8f1d38;
}

.bar.mine.dry,
.bar.mine.wait {
  background: #3f6f94;
}

.bar.smoke {
  background: var(--rail);
}

.bar.smoke .words,
.bar.mine .words {
  color: #fff;
}

.bar.planned {
  outline: 2px dashed var(--quiet);
  outline-offset: -2px;
}

.bar.open {
  border-right: 4px dotted var(--quiet);
  border-radius: 3px 0 0 3px;
}

.clash {
  position: absolute;
  z-index: 2;
  top: 2px;
  bottom: 2px;
  border: 2px dashed var(--care);
  pointer-events: none;
}

.tail {
  position: absolute;
  z-index: 1;
  height: 26px;
  border: 1px dashed #b5304a;
  border-left: 0;
  border-radius: 0 3px 3px 0;
}

.point {
  position: absolute;
  z-index: 2;
  width: 6px;
  height: 6px;
  margin-left: -3px;
  border: 1px solid var(--ink);
  border-radius: 50%;
  background: #fff;
}
</style>
