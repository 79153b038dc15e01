<script setup lang="ts">
import TypedInput from '@/shared/ui/TypedInput.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import DateBox from '@/shared/ui/DateBox.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import { computed } from 'vue'
import type { Problem } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import MakeFields from './MakeFields.vue'

import { blankMake, type Meal, type MealDraft, type Meals } from './useMeals'

/** What is to be served when, made how, and from what. */
const props = defineProps<{ options: Meals; plan: Meal | null; problem: Problem | null }>()
const draft = defineModel<MealDraft>({ required: true })
const { like } = useUnits()
/** What is wrong at a field, as last worked out or refused. */
const fault = (path: string): string | undefined =>
  [...(props.problem?.fields ?? []), ...(props.plan?.problems ?? [])].find((one) => one.path === path)
    ?.message
function add(): void {
  draft.value.wants.push({ sort: 'dish', name: '', amount: '' })
}
/** What is short, each of which can have its own method. */
const products = computed(() => (props.plan?.needed ?? []).map((one) => one.product))
function addMake(): void {
  const taken = draft.value.makes.map((make) => make.product)
  const product = products.value.findLast((one) => !taken.includes(one)) ?? ''
  draft.value.makes.push({ ...blankMake(), product })
}
</script>

<template>
  <div class="form">
    <TypedInput v-model="draft.name" label="Name" :problem="fault('name')" placeholder="Saturday's forty" />
    <DateBox v-model="draft.day" label="Day" :problem="fault('day')" />
    <DateBox v-model="draft.at" label="At" kind="time" />
    <div v-for="(want, at) in draft.wants" :key="at" class="want">
      <SelectBox v-model="want.sort" label="Serve">
        <option value="dish">plates of a dish</option>
        <option value="product">so much of a product</option>
      </SelectBox>
      <TypedInput
        v-model="want.name"
        :label="want.sort === 'dish' ? 'Dish' : 'Product'"
        :problem="fault(`wants[${at}].name`)"
        :suggestions="want.sort === 'dish' ? options.dishes : options.products"
      />
      <TypedInput
        v-model="want.amount"
        :label="want.sort === 'dish' ? 'Plates' : 'How much'"
        :problem="fault(`wants[${at}].amount`)"
        :placeholder="want.sort === 'dish' ? '40' : like('6 lb', '3 kg')"
      />
      <ActButton
        v-if="draft.wants.length > 1"
        small
        :aria-label="`Remove ${want.name || 'this'}`"
        @click="draft.wants.splice(at, 1)"
      >
        Remove
      </ActButton>
    </div>
    <ActButton class="wide" small @click="add">Serve something else too</ActButton>
    <MakeFields
      v-for="(_, at) in draft.makes"
      :key="`m${at}`"
      v-model="draft.makes[at]!"
      :options="options"
      :fault="(name: string) => fault(`makes[${at}].${name}`)"
      :is-only="draft.makes.length === 1"
      :number="at + 1"
      :products="products"
      @remove="draft.makes.splice(at, 1)"
    />
    <ActButton class="wide" small @click="addMake">Add another method</ActButton>
    <p v-if="fault('makes')" class="fault wide">{{ fault('makes') }}</p>
    <TypedInput
      v-model="draft.sure"
      label="How sure to have enough, %"
      :problem="fault('sure')"
      inputmode="numeric"
    />
    <TypedInput
      v-model="draft.reserve_hours"
      label="Reserve before the meal, hours"
      :problem="fault('reserve_hours')"
      inputmode="decimal"
      placeholder="0"
    />
    <TypedInput
      v-model="draft.hours_a_day"
      label="Work hours a day"
      :problem="fault('hours_a_day')"
      inputmode="decimal"
      placeholder="not counted"
    />
    <TickBox v-model="draft.is_weekly">every week</TickBox>

    <ProblemNote v-if="problem && !problem.fields?.length" :problem="problem" class="wide" />
  </div>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px;
  align-items: end;
}

.want {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px;
  align-items: end;
}

.wide {
  grid-column: 1 / -1;
  justify-self: start;
}
</style>
