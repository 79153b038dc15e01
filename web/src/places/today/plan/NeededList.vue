<script setup lang="ts">
import TickBox from '@/shared/ui/TickBox.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { weekMomentText } from '@/shared/quantity/when'
import type { Meal } from './useMeals'

/** What is wanted of each product, and where it comes from; batches under way can be left out. */
defineProps<{ plan: Meal }>()
const leaveOut = defineModel<string[]>({ required: true })
const { weightText } = useUnits()
type Coming = Meal['coming'][number]
function comingText(one: Coming): string {
  const when = one.ready ? `ready ${weekMomentText(one.ready)}` : 'when it is ready is not known'
  const why = one.counts || one.is_left_out ? '' : one.ready ? ', too late for the meal' : ', so not counted'
  return `about ${weightText(one.brings)} of ${one.products.join(' and ')}, ${when}${why}`
}
function toggle(code: string): void {
  leaveOut.value = leaveOut.value.includes(code)
    ? leaveOut.value.filter((one) => one !== code)
    : [...leaveOut.value, code]
}
const isAny = (weight: { kg: string }): boolean => Number(weight.kg) > 0
</script>

<template>
  <section v-if="plan.needed.length" class="panel lines" aria-label="Where it comes from">
    <h2>Where it comes from</h2>
    <dl v-for="one in plan.needed" :key="one.product">
      <div>
        <dt>{{ one.product }}, wanted</dt>
        <dd>
          <b>{{ weightText(one.wanted) }}</b>
        </dd>
      </div>
      <div>
        <dt>
          in the larder that day<span v-if="isAny(one.taken)" class="quiet small">
            after {{ weightText(one.taken) }} for plans before</span
          >
        </dt>
        <dd>{{ weightText(one.here) }}</dd>
      </div>
      <div v-if="isAny(one.coming)">
        <dt>from batches under way, surely</dt>
        <dd>{{ weightText(one.coming) }}</dd>
      </div>
      <div>
        <dt>to be made</dt>
        <dd>
          <b>{{ weightText(one.short) }}</b>
        </dd>
      </div>
    </dl>
    <TickBox
      v-for="one in plan.coming"
      :key="one.code"
      :model-value="!one.is_left_out"
      @update:model-value="toggle(one.code)"
      ><span
        ><b>{{ one.code }}</b> {{ comingText(one) }}</span
      ></TickBox
    >
  </section>
</template>

<style scoped>
dl {
  display: grid;
  gap: 2px;
  margin: 0 0 6px;
}

dl div {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}

dd {
  margin: 0;
  white-space: nowrap;
}
</style>
