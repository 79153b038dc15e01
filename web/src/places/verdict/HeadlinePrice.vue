<script setup lang="ts">
import { computed } from 'vue'
import type { Batch } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** The one number, and the stage it is of. */
const props = defineProps<{ batch: Batch }>()
const { costText, otherCostText, bothText, money, unitWord } = useUnits()
const house = computed(() => props.batch.house)
const stage = computed(() => (house.value.stage === 'bought' ? 'as bought' : house.value.stage))
const title = computed(() =>
  house.value.stage === 'bought'
    ? `Price of a ${unitWord.value}, as bought`
    : `Price of a ${stage.value} ${unitWord.value}${house.value.is_sliced ? '' : ', so far'}`,
)
</script>

<template>
  <section class="panel" :aria-label="title">
    <p class="quiet small">{{ title }}</p>
    <template v-if="house.unit_cost">
      <p class="big">{{ costText(house.unit_cost) }}</p>
      <p class="quiet">{{ otherCostText(house.unit_cost) }}</p>
    </template>
    <dl>
      <div v-if="house.portion_label">
        <dt>A portion, {{ house.portion_label }}</dt>
        <dd v-if="house.portion">{{ money(house.portion) }}</dd>
        <dd v-else class="quiet later">once sliced</dd>
      </div>
      <div v-if="house.cost_per_slice">
        <dt>A slice, of {{ house.slices }}</dt>
        <dd>{{ money(house.cost_per_slice) }}</dd>
      </div>
      <div>
        <dt>Kept of what was bought</dt>
        <dd>{{ house.kept_of_bought }} %</dd>
      </div>
      <div>
        <dt>All {{ bothText(house.weight) }}</dt>
        <dd>{{ money(house.cost) }}</dd>
      </div>
    </dl>
  </section>
</template>

<style scoped>
.big {
  font-size: 48px;
  font-weight: 800;
  font-stretch: 106%;
  line-height: 1.05;
  letter-spacing: -0.01em;
}

dl {
  border-top: 1px solid var(--edge);
  margin-top: 10px;
  padding-top: 8px;
  display: grid;
  line-height: 1.32;
}

dl div {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}

dd {
  font-weight: 680;
  white-space: nowrap;
}

.later {
  font-weight: 450;
}
</style>
