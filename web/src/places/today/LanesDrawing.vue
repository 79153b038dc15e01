<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { weekdayText } from '@/shared/quantity/when'
import HandsTrack from './HandsTrack.vue'
import LaneTrack from './LaneTrack.vue'
import { daysFrom, partOf } from './lanes'
import { useDayDrag } from './useDayDrag'

/**
 * Who lies where until when: fridges, smokers, chambers along the days, tasks as points. A plan shows its
 * `hands` above them, the day of the `meal`, which can be dragged, and outlines where it does not fit.
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
const emit = defineEmits<{ move: [days: number] }>()
const isNarrow = useMediaQuery('(max-width: 620px)')
/** On a phone a week; a plan is shown whole, however long it is. */
const days = computed(() => (isNarrow.value && !props.meal ? 7 : props.days))
const part = (moment: string): number => partOf(moment, props.first, days.value)
const dates = computed(() => daysFrom(props.first, days.value))
const isMiddling = useMediaQuery('(max-width: 979px)')
/** So many days have room to be named; of more every other one is, or one in seven. */
const step = computed(() => Math.ceil(days.value / (isNarrow.value ? 7 : isMiddling.value ? 10 : 14)))
const mealDay = computed(() => (props.meal ? Math.floor(part(props.meal) * days.value) : -1))
/** The day of the meal is always named; of its neighbors none that has no room beside it. */
const isNamed = (at: number): boolean =>
  at === mealDay.value ||
  (at % step.value === 0 && (mealDay.value < 0 || Math.abs(at - mealDay.value) >= step.value))
const nowAt = computed(() => part(props.now))
const mealAt = computed(() => (props.meal ? mealDay.value / days.value : null))
const percent = (part: number): string => `${(part * 100).toFixed(2)}%`
const grid = ref<HTMLElement | null>(null)
const { isDragging, take, drag, drop } = useDayDrag(
  () => (grid.value?.clientWidth ?? 0) / days.value,
  (by) => emit('move', by),
)
</script>

<template>
  <section class="panel lanes" aria-label="Who lies where until when">
    <div class="row head" aria-hidden="true">
      <span class="name"></span>
      <div class="track">
        <span
          v-for="(date, at) in dates"
          v-show="isNamed(at)"
          :key="at"
          class="date"
          :class="{ today: at === 0, meal: mealDay === at }"
          :style="{ left: percent(at / days), width: percent(1 / days) }"
          ><b>{{ weekdayText(date) }}</b> {{ date.getDate() }}</span
        >
      </div>
    </div>
    <div v-if="hands?.length" class="row">
      <span class="name">Hands</span>
      <HandsTrack :hands="hands" :part="part" :is-narrow="isNarrow" />
    </div>
    <div v-for="lane in lanes" :key="lane.name" class="row">
      <span class="name">{{ lane.name || 'Not placed' }}</span>
      <LaneTrack :lane="lane" :first="first" :days="days" :clashes="clashes ?? []" />
    </div>
    <div ref="grid" class="grid" aria-hidden="true">
      <span v-for="at in days - 1" :key="at" class="line" :style="{ left: percent(at / days) }"></span>
      <span
        v-if="mealAt !== null"
        class="meal-day"
        :class="{ held: isDragging }"
        :style="{ left: percent(mealAt), width: percent(1 / days) }"
        ><span
          class="handle"
          title="Drag the meal to another day"
          @pointerdown="take"
          @pointermove="drag"
          @pointerup="drop"
          @pointercancel="drop"
        ></span
      ></span>
      <span class="line now" :style="{ left: percent(nowAt) }"></span>
    </div>
    <p v-if="!lanes.length" class="quiet">
      No fridge, smoker or chamber yet.
      <RouterLink :to="{ name: 'map' }">Add them on the map</RouterLink>
    </p>
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

.meal-day.held {
  outline: 2px solid #b5304a;
}

.handle {
  position: absolute;
  z-index: 3;
  inset: -30px -6px auto;
  height: 44px;
  cursor: ew-resize;
  pointer-events: auto;
  touch-action: none;
}

/* a grip, so that it is seen that the day can be taken hold of */
.handle::after {
  content: '';
  position: absolute;
  inset: auto 25% 6px;
  height: 6px;
  border: 1px solid #b5304a;
  border-width: 1px 0;
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
