<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { dayText, weekdayText } from '@/shared/quantity/when'
import { type Bar, daysFrom, type Drawn, layOut, partOf } from './lanes'

/**
 * Who lies where until when: fridges, smokers, chambers along the days, tasks as points. A plan shows its
 * `hands` above them, the day of the `meal`, and outlines where it does not fit.
 */
const props = defineProps<{
  lanes: Schemas['LaneOut'][]
  first: string
  days: number
  now: string
  hands?: { at: string; words: string }[]
  meal?: string
  clashes?: Schemas['ClashOut'][]
}>()
const isNarrow = useMediaQuery('(max-width: 620px)')
/** On a phone a week; a plan is shown whole, however long it is. */
const days = computed(() => (isNarrow.value && !props.meal ? 7 : props.days))
const part = (moment: string): number => partOf(moment, props.first, days.value)
const rows = computed(() =>
  props.lanes.map((lane) => {
    const drawn = layOut(lane.bars, props.first, days.value)
    const tooFull = (props.clashes ?? []).filter((one) => one.store === lane.name && one.store)
    return { lane, drawn, tooFull, height: Math.max(1, ...drawn.map((one) => one.row + 1)) }
  }),
)
const dates = computed(() => daysFrom(props.first, days.value))
/** Of many days every other one, or one in seven, is named. */
const step = computed(() => Math.ceil(days.value / (isNarrow.value ? 7 : 20)))
const nowAt = computed(() => part(props.now))
const mealAt = computed(() => (props.meal ? Math.floor(part(props.meal) * days.value) / days.value : null))
/** What hands do, each word on the first line where it has room; where none has, the dot alone is shown. */
const handsShown = computed(() => {
  const ends = [-1, -1, -1]
  return (props.hands ?? []).map((one) => {
    const at = part(one.at)
    const half = (one.words.length * (isNarrow.value ? 0.02 : 0.0075)) / 2 + 0.004
    const row = ends.findIndex((end) => end <= at - half)
    if (row >= 0) ends[row] = at + half
    return { ...one, part: at, row }
  })
})
/** Whether there is room for words: a stay of a few hours is a mark alone, named when pointed at. */
const hasRoom = (one: Drawn): boolean => (one.to - one.from) * days.value > 1.2
const percent = (part: number): string => `${(part * 100).toFixed(2)}%`
const marksOf = (bar: Bar): string => bar.marks.filter((mark) => mark !== 'lot').join(' · ')
function about(bar: Bar): string {
  const until = bar.ends ? `until ${dayText(bar.ends)}` : bar.is_planned ? '' : 'no end planned'
  const from = bar.is_planned ? `planned for ${dayText(bar.begins)}` : ''
  return [`${bar.code || bar.name} ${marksOf(bar)}`.trim(), bar.words, from, until].filter(Boolean).join(', ')
}
</script>

<template>
  <section class="panel lanes" aria-label="Who lies where until when">
    <template v-if="lanes">
      <div class="row head" aria-hidden="true">
        <span class="name"></span>
        <div class="track">
          <span
            v-for="(date, at) in dates"
            v-show="at % step === 0"
            :key="at"
            class="date"
            :class="{ today: at === 0, meal: mealAt !== null && Math.round(mealAt * days) === at }"
            :style="{ left: percent(at / days), width: percent(1 / days) }"
            ><b>{{ weekdayText(date) }}</b> {{ date.getDate() }}</span
          >
        </div>
      </div>
      <div v-if="hands?.length" class="row">
        <span class="name">Hands</span>
        <ul class="track hands" aria-label="Hands">
          <li v-for="one in handsShown" :key="one.at + one.words" :style="{ left: percent(one.part) }">
            <span class="dot" aria-hidden="true"></span>
            <span class="job" :class="one.row < 0 ? 'unseen' : `line-${one.row}`">{{ one.words }}</span>
          </li>
        </ul>
      </div>
      <div v-for="{ lane, drawn, tooFull, height } in rows" :key="lane.name" class="row">
        <span class="name">{{ lane.name || 'Not placed' }}</span>
        <ul
          class="track"
          :style="{ height: `${height * 30 + 10}px` }"
          :aria-label="lane.name || 'Not placed'"
        >
          <li
            v-for="(one, at) in drawn"
            :key="at"
            class="bar"
            :class="[
              one.bar.kind,
              {
                planned: one.bar.is_planned && one.bar.code,
                mine: !one.bar.code,
                open: !one.bar.ends && one.to >= 1,
              },
            ]"
            :style="{
              left: percent(one.from),
              width: percent(one.to - one.from),
              top: `${one.row * 30 + 5}px`,
            }"
            :title="about(one.bar)"
          >
            <span v-if="!one.bar.code" class="own"
              ><template v-if="hasRoom(one)"
                ><b>{{ one.bar.name }}</b> {{ one.bar.words }}</template
              >&nbsp;</span
            >
            <RouterLink
              v-else
              :to="{ name: 'log', params: { code: one.bar.code } }"
              :aria-label="about(one.bar)"
              ><template v-if="hasRoom(one)"
                ><b>{{ one.bar.code }}</b> {{ marksOf(one.bar) }} {{ one.bar.words }}</template
              >&nbsp;</RouterLink
            >
          </li>
          <li
            v-for="(clash, at) in tooFull"
            :key="`c${at}`"
            class="clash"
            aria-hidden="true"
            :style="{
              left: percent(Math.max(0, part(clash.begins))),
              right: percent(Math.max(0, 1 - part(clash.ends))),
            }"
          ></li>
          <template v-for="(one, at) in drawn" :key="`t${at}`">
            <li
              v-if="one.tail > one.to"
              class="tail"
              aria-hidden="true"
              :style="{
                left: percent(one.to),
                width: percent(one.tail - one.to),
                top: `${one.row * 30 + 5}px`,
              }"
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
      </div>
      <div class="grid" aria-hidden="true">
        <span v-for="at in days - 1" :key="at" class="line" :style="{ left: percent(at / days) }"></span>
        <span
          v-if="mealAt !== null"
          class="meal-day"
          :style="{ left: percent(mealAt), width: percent(1 / days) }"
        ></span>
        <span class="line now" :style="{ left: percent(nowAt) }"></span>
      </div>
      <p v-if="!rows.length" class="quiet">
        No fridge, smoker or chamber yet.
        <RouterLink :to="{ name: 'map' }">Add them on the map</RouterLink>
      </p>
    </template>
  </section>
</template>

<style scoped>
.lanes {
  position: relative;
  padding: 10px 14px 14px;
  overflow: hidden;
  --name: 92px;
}

.row {
  display: grid;
  grid-template-columns: var(--name) minmax(0, 1fr);
  border-top: 1px solid var(--edge);
}

.row.head {
  border-top: 0;
}

.name {
  padding: 9px 6px 0 0;
  font-weight: 640;
  font-size: 14px;
  overflow-wrap: anywhere;
}

.track {
  position: relative;
  min-height: 30px;
}

.date {
  position: absolute;
  padding: 4px 0;
  text-align: center;
  font-size: 12px;
  font-stretch: 88%;
  color: var(--quiet);
  white-space: nowrap;
}

.date b {
  font-weight: 500;
}

.date.today {
  min-width: max-content;
  padding: 4px 3px;
  background: var(--rail);
  color: #fff;
  border-radius: 4px;
}

.bar {
  position: absolute;
  z-index: 1;
  height: 26px;
  border-radius: 3px;
  background: var(--rose);
  overflow: hidden;
}

.bar a,
.bar .own {
  display: block;
  padding: 3px 8px;
  font-size: 12.5px;
  font-stretch: 88%;
  line-height: 20px;
  white-space: nowrap;
  text-decoration: none;
  color: var(--ink);
}

.bar.mine {
  background: #8f1d38;
}

.bar.mine.dry,
.bar.mine.wait {
  background: #3f6f94;
}

.bar.mine.smoke {
  background: var(--rail);
}

.bar .own {
  color: #fff;
}

.clash {
  position: absolute;
  z-index: 2;
  top: 2px;
  bottom: 2px;
  border: 2px dashed var(--care);
  pointer-events: none;
}

.hands {
  height: 72px;
}

.hands li {
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
  top: 14px;
  left: 0;
  transform: translateX(-50%);
  font-size: 11.5px;
  font-stretch: 84%;
  white-space: nowrap;
}

.job.line-1 {
  top: 28px;
}

.job.line-2 {
  top: 42px;
}

.date.meal {
  color: #8f1d38;
  font-weight: 700;
}

.meal-day {
  position: absolute;
  top: 0;
  bottom: 0;
  background: #fbe4e8;
}

.bar.cure:not(.mine) {
  background: #e39aa8;
}

.bar.wait:not(.mine) {
  background: #d9dfdb;
}

.bar.dry:not(.mine) {
  background: #8fb8d6;
}

.bar.hang {
  background: #6f8f8a;
}

.bar.hang a {
  color: #0e1413;
}

.bar.smoke {
  background: var(--rail);
}

.bar.smoke a {
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

.grid {
  position: absolute;
  inset: 36px 14px 14px calc(14px + var(--name));
  pointer-events: none;
}

.line {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 1px solid #eef1ee;
}

.line.now {
  border-left: 2px solid #b5304a;
}

@media (max-width: 620px) {
  .lanes {
    --name: 70px;
  }

  .name {
    font-size: 13px;
    font-stretch: 88%;
  }
}
</style>
