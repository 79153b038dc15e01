<script setup lang="ts">
import { asDate, longDayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import { useMeals } from './useMeals'

/** Every plan, the next meal first. */
const { data, error, refetch } = useMeals()
</script>

<template>
  <div class="head">
    <h1>Plans</h1>
    <div class="acts">
      <RouterLink class="act first" :to="{ name: 'plan-new' }">Plan a meal</RouterLink>
    </div>
  </div>
  <LoadState v-if="!data" :error="error" what="the plans" @retry="refetch()" />
  <p v-else-if="!data.meals.length" class="panel">
    No plans yet. Say what is to be served on which day: it is counted back to what to buy and when to begin.
  </p>
  <ul v-else>
    <li v-for="meal in data.meals" :key="meal.name" class="panel" :class="{ over: meal.is_over }">
      <RouterLink :to="{ name: 'plan', params: { name: meal.name } }"
        ><b>{{ meal.name }}</b></RouterLink
      >
      <span>{{ meal.words }}</span>
      <span class="quiet"
        >{{ longDayText(asDate(meal.day)) }}, {{ meal.at }}{{ meal.is_weekly ? ', every week' : '' }}</span
      >
      <span>{{ meal.is_listed ? '✓ on the list' : meal.is_over ? 'over' : '' }}</span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 10px;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) minmax(0, 1fr) 110px;
  gap: 4px 14px;
  align-items: baseline;
}

.over {
  opacity: 0.75;
}

@media (max-width: 620px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
