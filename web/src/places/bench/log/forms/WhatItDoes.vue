<script setup lang="ts">
import { computed } from 'vue'
import type { Preview } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** What an entry would do, before it is recorded. */
const props = defineProps<{ preview: Preview | null; isStep: boolean }>()
const { bothText, costText, otherCostText, unitWord, percent } = useUnits()

/** Faults that belong to the entry as a whole, not to one field. */
const whole = new Set(['pieces', 'weights', 'piece', 'cut_off', 'into'])
const faults = computed(() => (props.preview?.problems ?? []).filter((problem) => whole.has(problem.path)))
const column = computed(() => props.preview?.column ?? null)
const loss = computed(() =>
  column.value?.peels.find((peel) => peel.material === 'loss' || peel.material === 'water'),
)
</script>

<template>
  <div v-if="isStep" class="does" aria-live="polite">
    <p v-for="fault in faults" :key="fault.message" class="fault">
      <span aria-hidden="true">▲</span> {{ fault.message }}
    </p>
    <p v-for="one in preview?.asks ?? []" :key="one" class="care" role="status">
      <span aria-hidden="true">▲</span> {{ one }}
    </p>
    <dl v-if="column">
      <div v-if="column.kept_of_step">
        <dt>kept of this step</dt>
        <dd>{{ percent(column.kept_of_step) }}</dd>
      </div>
      <div v-if="loss">
        <dt>{{ loss.name }}{{ loss.gain ? ', gained' : loss.name.startsWith('lost') ? '' : ', lost' }}</dt>
        <dd>{{ bothText(loss.weight) }}</dd>
      </div>
      <div v-if="column.cost">
        <dt>a {{ unitWord }} then costs</dt>
        <dd class="price">
          {{ costText(column.cost) }} <span>{{ otherCostText(column.cost) }}</span>
        </dd>
      </div>
    </dl>
    <p v-else-if="faults.length === 0" class="quiet">
      Once you enter weights, this shows what was kept and what a {{ unitWord }} then costs.
    </p>
  </div>
</template>

<style scoped>
.does {
  background: var(--rail);
  color: #eef2f0;
  border-radius: 4px;
  padding: 12px 14px;
  min-height: 66px;
}

dl {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
}

dt,
.quiet {
  font-size: 13px;
  color: #b9c3bf;
}

dd {
  font-size: 18px;
  font-weight: 680;
}

.price {
  color: #f08ba0;
}

.price span {
  font-size: 13px;
  font-weight: 500;
  color: #b9c3bf;
}

.fault {
  color: #f3c77a;
  font-weight: 600;
}
</style>
