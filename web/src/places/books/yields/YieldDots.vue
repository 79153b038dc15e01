<script setup lang="ts">
import FoldAway from '@/shared/ui/FoldAway.vue'
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import { endsOf, placeDots, ticksOf } from './dots'

/** Yields of several sorts on one scale: every batch a dot, the last one dark, the band of eight in ten behind. */
const props = defineProps<{ sorts: Schemas['SortOut'][]; isShort?: boolean; isStep?: boolean }>()
const router = useRouter()
const { costText, unitWord, percent } = useUnits()
const scale = ref<HTMLElement>()
const { width } = useElementSize(scale)
const wide = computed(() => Math.max(width.value, 160))
const ends = computed(() => endsOf(props.sorts))
const EDGE = 24
const x = (kept: number): number =>
  EDGE + ((kept - ends.value[0]) / (ends.value[1] - ends.value[0])) * (wide.value - 2 * EDGE)
const ticks = computed(() => ticksOf(ends.value))
const rows = computed(() =>
  props.sorts.flatMap((sort) =>
    sort.parts.map((part, at) => ({
      key: `${sort.key} ${part.label}`,
      sort,
      part,
      isFirst: at === 0,
      dots: placeDots(part.dots, x, 7),
    })),
  ),
)
const bandText = (part: Schemas['YieldPartOut']): string =>
  part.spread.low && part.spread.high
    ? `8 in 10 between ${part.spread.low} and ${part.spread.high} %`
    : 'too few for a band'
function spreadText(spread: Schemas['YieldSpreadOut']): string {
  if (spread.deviation === null || spread.own === null) return ''
  return `spread ± ${spread.deviation} points, of it the scale ± ${spread.scale}`
}
</script>

<template>
  <div class="dots" :class="{ short: isShort }">
    <div class="row head" aria-hidden="true">
      <span>{{ isStep ? 'step and cut' : 'cut and method' }}</span>
      <span class="count">batches</span>
      <div ref="scale" class="scale">
        <svg :viewBox="`0 0 ${wide} 18`" :width="wide" height="18">
          <text v-for="tick in ticks" :key="tick" :x="x(tick)" y="13" text-anchor="middle">{{ tick }} %</text>
        </svg>
      </div>
      <span class="price">{{ isStep ? `a ${unitWord} after it` : `a sliced ${unitWord}` }}</span>
    </div>
    <section
      v-for="row in rows"
      :key="row.key"
      class="row"
      :aria-label="`${row.sort.label} ${row.part.label}`"
    >
      <div class="name">
        <b v-if="row.isFirst">{{ row.sort.label }}</b>
        <span v-if="row.part.label" class="part">{{ row.part.label }}</span>
      </div>
      <span class="count">{{ row.part.spread.batches }}</span>
      <svg
        class="line"
        :viewBox="`0 0 ${wide} 40`"
        :width="wide"
        height="40"
        role="img"
        :aria-label="`${row.part.spread.batches} batches, middle ${row.part.spread.middle} %, ${bandText(row.part)}`"
      >
        <line v-for="tick in ticks" :key="tick" :x1="x(tick)" :x2="x(tick)" y1="0" y2="40" stroke="#E4E8E6" />
        <rect
          v-if="row.part.spread.low && row.part.spread.high"
          :x="x(Number(row.part.spread.low))"
          y="10"
          :width="Math.max(x(Number(row.part.spread.high)) - x(Number(row.part.spread.low)), 2)"
          height="20"
          rx="2"
          fill="#F6DEE2"
        />
        <rect :x="x(Number(row.part.spread.middle)) - 2" y="8" width="4" height="24" fill="#8E1F38" />
        <g
          v-for="one in row.dots"
          :key="one.dot.code"
          class="hit"
          @click="router.push({ name: 'strip', params: { code: one.dot.code } })"
        >
          <title>
            {{ one.dot.code }} {{ one.dot.name }}: {{ percent(one.dot.kept) }}, {{ dayText(one.dot.at) }}
          </title>
          <circle :cx="one.x" :cy="20 + one.aside * 7" r="11" fill="transparent" />
          <circle
            class="dot"
            :class="{ last: one.dot.is_last }"
            :cx="one.x"
            :cy="20 + one.aside * 7"
            r="4.5"
          />
        </g>
      </svg>
      <b class="price">{{ row.part.spread.price ? costText(row.part.spread.price) : '–' }}</b>
      <p v-if="!isShort" class="quiet small words">
        middle {{ percent(row.part.spread.middle) }}, {{ bandText(row.part) }}
        <template v-if="spreadText(row.part.spread)">; {{ spreadText(row.part.spread) }}</template>
        <template v-if="row.sort.forecast && row.isFirst">. Forecasts go by {{ row.sort.forecast }}</template>
      </p>
      <FoldAway
        v-if="!isShort"
        class="list"
        :word="row.dots.length === 1 ? 'The batch' : `The ${row.dots.length} batches`"
      >
        <ul>
          <li v-for="one in [...row.dots].reverse()" :key="one.dot.code">
            <RouterLink :to="{ name: 'strip', params: { code: one.dot.code } }">{{
              one.dot.code
            }}</RouterLink>
            {{ percent(one.dot.kept) }}, {{ dayText(one.dot.at) }}
          </li>
        </ul>
      </FoldAway>
    </section>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(120px, 1.1fr) 56px minmax(0, 3fr) 104px;
  gap: 0 12px;
  align-items: center;
  padding: 3px 0;
}

.head {
  font-size: 13px;
  color: var(--quiet);
}

.head text {
  font-size: 12px;
  fill: var(--quiet);
}

.scale,
.line {
  grid-column: 3;
  min-width: 0;
  display: block;
}

.name {
  display: grid;
}

.part {
  font-size: 14px;
}

.count,
.price {
  text-align: right;
}

.count {
  color: var(--quiet);
}

.hit {
  cursor: pointer;
}

.dot {
  fill: var(--lean);
  stroke: #fff;
  stroke-width: 1;
}

.dot.last {
  fill: var(--rose-deep);
}

g:hover .dot {
  stroke: var(--ink);
  stroke-width: 2;
}

.words {
  grid-column: 3 / -1;
}

.list {
  grid-column: 3 / -1;
  font-size: 14px;
}

.list ul {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  padding: 4px 0 8px;
}

@media (max-width: 719px) {
  .row {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  .row.head > span {
    display: none;
  }

  .scale,
  .line,
  .words,
  .list {
    grid-column: 1 / -1;
  }

  .name {
    grid-column: 1;
  }

  section .count {
    display: none;
  }

  section .price {
    grid-area: 1 / 2;
  }
}
</style>
