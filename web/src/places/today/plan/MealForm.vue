<script setup lang="ts">
import { computed } from 'vue'
import type { Problem } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import MakeFields from './MakeFields.vue'
import MealField from './MealField.vue'
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
    <button type="button" class="act small wide" @click="addMake">Make something another way</button>
    <p v-if="fault('makes')" class="fault wide">{{ fault('makes') }}</p>
    <MealField word="Enough in how many of 100" :fault="fault('sure')"
      ><input v-model="draft.sure" class="box" inputmode="numeric"
    /></MealField>
    <MealField word="Reserve before the meal, hours" :fault="fault('reserve_hours')"
      ><input v-model="draft.reserve_hours" class="box" inputmode="decimal" placeholder="0"
    /></MealField>
    <MealField word="Hands, hours a day" :fault="fault('hours_a_day')"
      ><input v-model="draft.hours_a_day" class="box" inputmode="decimal" placeholder="not counted"
    /></MealField>
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
