<script setup lang="ts">
import type { Problem } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import MealField from './MealField.vue'
import type { Meal, MealDraft, Meals } from './useMeals'

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
</script>

<template>
  <div class="form">
    <MealField word="Name" :fault="fault('name')"
      ><input v-model="draft.name" class="box" maxlength="80" placeholder="Saturday's forty"
    /></MealField>
    <MealField word="Day" :fault="fault('day')"
      ><input v-model="draft.day" class="box" type="date"
    /></MealField>
    <label class="named"><span>At</span><input v-model="draft.at" class="box" type="time" /></label>
    <div v-for="(want, at) in draft.wants" :key="at" class="want">
      <label class="named"
        ><span>Serve</span
        ><select v-model="want.sort" class="box" :aria-label="`What ${at + 1} is`">
          <option value="dish">plates of a dish</option>
          <option value="product">so much of a product</option>
        </select></label
      >
      <MealField :word="want.sort === 'dish' ? 'Dish' : 'Product'" :fault="fault(`wants[${at}].name`)"
        ><input
          v-model="want.name"
          class="box"
          :list="want.sort === 'dish' ? 'meal-dishes' : 'meal-products'"
      /></MealField>
      <MealField :word="want.sort === 'dish' ? 'Plates' : 'How much'" :fault="fault(`wants[${at}].amount`)"
        ><input
          v-model="want.amount"
          class="box"
          :placeholder="want.sort === 'dish' ? '40' : like('6 lb', '3 kg')"
      /></MealField>
      <button
        v-if="draft.wants.length > 1"
        type="button"
        class="act small"
        :aria-label="`Remove ${want.name || 'this'}`"
        @click="draft.wants.splice(at, 1)"
      >
        Remove
      </button>
    </div>
    <button type="button" class="act small wide" @click="add">Serve something else too</button>
    <MealField word="Method" :fault="fault('way')"
      ><select v-model="draft.way" class="box">
        <option value="">choose</option>
        <option v-for="one in options.ways" :key="one" :value="one">{{ one }}</option>
      </select></MealField
    >
    <MealField word="Meat, from the price list" :fault="fault('meat')"
      ><select v-model="draft.meat" class="box">
        <option value="">not on it</option>
        <option v-for="one in options.meats" :key="one" :value="one">{{ one }}</option>
      </select></MealField
    >
    <MealField word="Cut" :fault="fault('cut')"
      ><input v-model="draft.cut" class="box" :placeholder="draft.meat || 'pork belly, skin on'"
    /></MealField>
    <MealField word="Price by weight" :fault="fault('price')"
      ><input
        v-model="draft.price"
        class="box"
        :placeholder="draft.meat ? 'as listed' : like('3.79/lb', '8.40/kg')"
    /></MealField>
    <MealField word="A pack holds" :fault="fault('pack')"
      ><input v-model="draft.pack" class="box" placeholder="any weight"
    /></MealField>
    <MealField word="A piece weighs, as it is laid" :fault="fault('piece')"
      ><input v-model="draft.piece" class="box" :placeholder="draft.pack || like('5 lb', '2.3 kg')"
    /></MealField>
    <MealField word="Enough in how many of 100" :fault="fault('sure')"
      ><input v-model="draft.sure" class="box" inputmode="numeric"
    /></MealField>
    <MealField word="Reserve before the meal, hours" :fault="fault('reserve_hours')"
      ><input v-model="draft.reserve_hours" class="box" inputmode="decimal" placeholder="0"
    /></MealField>
    <MealField word="Hands, hours a day" :fault="fault('hours_a_day')"
      ><input v-model="draft.hours_a_day" class="box" inputmode="decimal" placeholder="not counted"
    /></MealField>
    <label class="named"
      ><span>Loads of the smoker</span
      ><select v-model.number="draft.loads" class="box">
        <option v-for="count in 4" :key="count" :value="count">{{ count }}</option>
      </select></label
    >
    <label class="tick"><input v-model="draft.is_weekly" type="checkbox" /> every week</label>
    <datalist id="meal-dishes">
      <option v-for="one in options.dishes" :key="one" :value="one" />
    </datalist>
    <datalist id="meal-products">
      <option v-for="one in options.products" :key="one" :value="one" />
    </datalist>
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
