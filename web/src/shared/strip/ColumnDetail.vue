<script setup lang="ts">
import type { Batch, Column } from '@/shared/api/client'
import { spanText } from '@/shared/quantity/when'
import { useUnits } from '@/shared/quantity/useUnits'
import WhyFigure from '@/shared/why/WhyFigure.vue'

const props = defineProps<{ column: Column; sources: Batch['sources']; place: number | null }>()
const figure = (name: string): string => (props.place === null ? '' : `column_${props.place}_${name}`)
const { bothText, costText, otherCostText, money, unitWord, percent } = useUnits()
</script>

<template>
  <div class="detail" aria-live="polite">
    <p>
      <b>{{ column.label }}</b>, {{ spanText(column.first_at, column.last_at) }}:
      <template v-if="column.came_together">came together, </template>
      <template v-if="column.kept_of_step">{{ bothText(column.weight_in) }} → </template>
      <b>{{ bothText(column.weight_out) }}</b><template v-if="column.kept_of_step"
        >, <WhyFigure :figure="figure('kept')">{{ percent(column.kept_of_step) }}</WhyFigure> kept</template
      >
      <template v-for="peel in column.peels" :key="peel.name">
        · {{ peel.name }} {{ peel.gain ? '+' : '' }}{{ bothText(peel.weight)
        }}<template v-if="peel.carried !== null && peel.carried !== '0.00'"
          >, worth {{ money(peel.carried) }}</template
        >
      </template>
    </p>
    <p v-for="source in sources" :key="source.lot">
      {{ bothText(source.weight) }} of it is {{ source.piece }} of {{ source.batch }} {{ source.name }}, which
      brought {{ money(source.carried) }} along<template v-if="source.has_changed"
        >, {{ money(source.carried_then) }} on the day it was taken</template
      >.
    </p>
    <p>
      Spent
      <WhyFigure :figure="figure('spent')">{{ money(column.spent) }}</WhyFigure><template
        v-if="column.worth_back !== '0.00'"
        >, credit for trim {{ money(column.worth_back) }}</template
      >.
      <template v-if="column.cost">
        A {{ unitWord }} then cost
        <b
          ><WhyFigure :figure="figure('price')">{{ costText(column.cost) }}</WhyFigure></b
        >
        ({{ otherCostText(column.cost) }}).
      </template>
    </p>
  </div>
</template>

<style scoped>
.detail {
  border-top: 1px solid var(--edge);
  padding: 10px 14px;
  font-size: 14px;
  min-height: 62px;
}
</style>
