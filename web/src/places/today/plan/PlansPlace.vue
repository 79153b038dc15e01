<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import { computed, ref } from 'vue'
import { asDate, clockText, longDayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import PlansBeside from './PlansBeside.vue'
import { useMeals } from './useMeals'

/** Every plan, the next meal first; those that are ticked side by side. */
const { data, error, refetch } = useMeals()
const chosen = ref<string[]>([])
/** In the order of the list, and none that was dropped meanwhile. */
const beside = computed(() =>
  (data.value?.meals ?? []).map((meal) => meal.name).filter((name) => chosen.value.includes(name)),
)
</script>

<template>
  <div class="head">
    <h1>Plans</h1>
    <div class="acts">
      <ActLink first :to="{ name: 'plan-new' }">Plan a meal</ActLink>
    </div>
  </div>
  <LoadState v-if="!data" :error="error" what="the plans" @retry="refetch()" />
  <p v-else-if="!data.meals.length" class="panel">
    No plans yet. Say what is to be served on which day: it is counted back to what to buy and when to begin.
  </p>
  <template v-else>
    <ul>
      <li v-for="meal in data.meals" :key="meal.name" class="panel" :class="{ over: meal.is_over }">
        <RouterLink :to="{ name: 'plan', params: { name: meal.name } }"
          ><b>{{ meal.name }}</b></RouterLink
        >
        <span>{{ meal.words }}</span>
        <span class="quiet"
          >{{ longDayText(asDate(meal.day)) }}, {{ clockText(meal.at)
          }}{{ meal.is_weekly ? ', every week' : '' }}</span
        >
        <span>{{ meal.is_listed ? '✓ on the list' : meal.is_over ? 'over' : '' }}</span>
        <TickBox v-if="data.meals.length > 1" v-model="chosen" :value="meal.name"
          ><span class="unseen">{{ meal.name }}{{ ' ' }}</span
          >side by side</TickBox
        >
      </li>
    </ul>
    <p v-if="beside.length === 1" class="quiet">Tick another plan to see both side by side.</p>
    <PlansBeside v-else-if="beside.length" :names="beside" />
  </template>
</template>

<style scoped>
ul {
  display: grid;
  gap: 10px;
  margin-bottom: 16px;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) minmax(0, 1.1fr) 110px 130px;
  gap: 4px 14px;
  align-items: center;
}

.over {
  opacity: 0.75;
}

@media (max-width: 720px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
