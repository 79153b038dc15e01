<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed } from 'vue'
import AlarmList from '@/shared/alarms/AlarmList.vue'
import { useAlarms } from '@/shared/alarms/useAlarms'
import { useToday } from '@/shared/api/useBatch'
import { longDayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import BatchRow from '@/shared/parts/BatchRow.vue'
import DayLanes from './DayLanes.vue'
import LarderToday from './LarderToday.vue'
import PlanJobs from './PlanJobs.vue'
import ToDo from './ToDo.vue'

const { data: today, error, refetch } = useToday()
const { alarms } = useAlarms()
const print = (): void => window.print()
const date = longDayText(new Date())
const count = computed(() => (today.value?.under_way.length ?? 0) + (today.value?.more_under_way ?? 0))
const summary = computed(() =>
  count.value === 0
    ? 'nothing under way'
    : count.value === 1
      ? 'one batch under way'
      : `${count.value} batches under way`,
)
</script>

<template>
  <div class="head">
    <h1>{{ date }}</h1>
    <span v-if="today" class="quiet">{{ summary }}</span>
    <div class="acts">
      <ActLink :to="{ name: 'plans' }">Plan a meal</ActLink>
      <ActButton @click="print">Print for the wall</ActButton>
      <ActLink v-may:cook first :to="{ name: 'start' }">Start a batch</ActLink>
    </div>
  </div>
  <AlarmList :alarms="alarms" named class="alarms" />
  <LoadState v-if="!today" :error="error" what="what is under way" @retry="refetch()" />
  <div v-else class="day">
    <div>
      <ToDo />
      <PlanJobs />
      <LarderToday />
    </div>
    <div class="hangs">
      <DayLanes />
      <h2 class="screen">Under way</h2>
      <ul v-if="today.under_way.length" class="rows" aria-label="Batches under way">
        <BatchRow v-for="batch in today.under_way" :key="batch.code" :batch="batch" />
      </ul>
      <div v-else class="panel empty">
        <p>
          {{ today.finished.length ? 'Nothing is under way.' : 'No batches yet.' }} Start one with what you
          bought: cut, weight and price.
        </p>
      </div>
      <ActLink
        v-if="today.more_under_way"
        class="more"
        :to="{ name: 'batches', query: { state: 'under-way', page: 3 } }"
        >{{ today.more_under_way }} more under way</ActLink
      >
      <template v-if="today.finished.length">
        <h2>Recently finished</h2>
        <ul class="rows" aria-label="Recently finished">
          <BatchRow v-for="batch in today.finished" :key="batch.code" :batch="batch" />
        </ul>
      </template>
    </div>
  </div>
</template>

<style scoped>
.day {
  display: grid;
  grid-template-columns: minmax(320px, 400px) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}

.alarms {
  margin-bottom: 16px;
}

@media (max-width: 979px) {
  .day {
    grid-template-columns: minmax(0, 1fr);
  }
}

.rows {
  display: grid;
  gap: 10px;
}

/* for the wall: what is to be done, and who lies where */
@media print {
  .acts,
  .alarms,
  .screen,
  .hangs > :not(:first-child) {
    display: none;
  }

  .day {
    grid-template-columns: minmax(0, 1fr);
  }
}

h2 {
  margin: 20px 0 8px;
}

.more {
  margin-top: 10px;
}

.empty {
  padding: 40px 16px;
  text-align: center;
}
</style>
