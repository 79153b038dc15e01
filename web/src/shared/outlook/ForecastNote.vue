<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import { toRef } from 'vue'
import type { Forecast } from '@/shared/api/client'
import { chanceText } from '@/shared/quantity/chance'
import { useUnits } from '@/shared/quantity/useUnits'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { capital } from '@/shared/quantity/capital'
import { vMay } from '@/shared/kitchen/vMay'
import { useChooseWay, useSayCourse } from './useForecast'

/** What a batch under way will come to, as far as can be foreseen; and the way it is made by. */
const props = defineProps<{ code: string; forecast: Forecast }>()
const { ways, choose, problem } = useChooseWay(toRef(props, 'code'))
const saying = useSayCourse(toRef(props, 'code'))
const { costText, unitWord, weightText } = useUnits()

function change(way: string): void {
  if (way) choose(way)
}
</script>

<template>
  <section
    v-if="forecast.price || forecast.courses.length || forecast.groups.length || forecast.notes.length"
    class="panel"
    aria-label="What it will come to"
  >
    <template v-if="forecast.courses.length">
      <p class="quiet small">
        Nobody said yet what it becomes. A finished {{ unitWord }} would cost, 8 times out of 10,
      </p>
      <ul class="courses" aria-label="What it may become">
        <li v-for="one in forecast.courses" :key="one.course">
          <ActButton
            v-may:cook
            small
            :disabled="saying.isSaving.value"
            @click="saying.say(one.course, forecast.seen)"
          >
            {{ capital(one.label) }}
          </ActButton>
          <b>{{ costText(one.price.low) }} to {{ costText(one.price.high) }}</b>
        </li>
      </ul>
      <ProblemNote v-if="saying.problem.value" :problem="saying.problem.value" />
    </template>
    <template v-else-if="forecast.groups.length">
      <p class="quiet small">
        The pieces become different things. A finished {{ unitWord }} will cost, 8 times out of 10,
      </p>
      <ul class="courses" aria-label="What its pieces will come to">
        <li v-for="one in forecast.groups" :key="one.label">
          <span
            ><b>{{ one.marks.join(' · ') }}</b> {{ one.label }}</span
          >
          <b v-if="one.price">{{ costText(one.price.low) }} to {{ costText(one.price.high) }}</b>
          <span v-else class="quiet small">{{
            one.course ? 'nothing is to come' : 'say what it becomes'
          }}</span>
        </li>
      </ul>
    </template>
    <template v-else-if="forecast.price">
      <p v-if="forecast.course_label" class="small">
        It becomes: <b>{{ forecast.course_label }}</b>
      </p>
      <p class="quiet small">A sliced {{ unitWord }} will cost, 8 times out of 10,</p>
      <p class="range">{{ costText(forecast.price.low) }} to {{ costText(forecast.price.high) }}</p>
      <p class="small">
        most likely about <b>{{ costText(forecast.price.middle) }}</b><template v-if="forecast.weight"
          >, from {{ weightText(forecast.weight.middle) }} sliced</template
        >
      </p>
      <p v-if="forecast.chance !== null" class="chance">
        {{ chanceText(forecast.chance, `the ${forecast.shop_name}`) }}
      </p>
    </template>
    <p v-for="note in forecast.notes" :key="note" class="small care">{{ note }}</p>
    <SelectBox
      v-if="ways.data.value?.ways.length"
      label="Method"
      :model-value="forecast.way ?? ''"
      @update:model-value="change"
    >
      <option v-if="!forecast.way" value="">the standard method</option>
      <option v-for="way in ways.data.value.ways" :key="way.name" :value="way.name">{{ way.name }}</option>
    </SelectBox>
    <FoldAway v-if="forecast.steps.length" class="small" word="What each step is expected to keep">
      <ul>
        <li v-for="step in forecast.steps" :key="step.kind">
          <b>{{ step.label }}:</b> {{ step.basis }}
        </li>
      </ul>
      <p class="quiet">Steps are treated as independent of one another.</p>
    </FoldAway>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
}

.courses {
  display: grid;
  gap: 6px;
}

.courses li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}

.range {
  font-size: 24px;
  font-weight: 780;
  font-stretch: 104%;
  color: var(--rose-deep);
  line-height: 1.15;
}

.care {
  border-left: 4px solid var(--care);
  padding-left: 8px;
  color: var(--care-ink);
}

li {
  padding: 2px 0;
}
</style>
