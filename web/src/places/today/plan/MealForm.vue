<script setup lang="ts">
import type { Problem } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
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
    <label class="named"
      ><span>Name</span
      ><input v-model="draft.name" class="box" maxlength="80" placeholder="Saturday's forty" /><i
        v-if="fault('name')"
        class="dear"
        >▲ {{ fault('name') }}</i
      ></label
    >
    <label class="named"
      ><span>Day</span><input v-model="draft.day" class="box" type="date" /><i
        v-if="fault('day')"
        class="dear"
        >▲ {{ fault('day') }}</i
      ></label
    >
    <label class="named"><span>At</span><input v-model="draft.at" class="box" type="time" /></label>
    <div v-for="(want, at) in draft.wants" :key="at" class="want">
      <label class="named"
        ><span>Serve</span
        ><select v-model="want.sort" class="box" :aria-label="`What ${at + 1} is`">
          <option value="dish">plates of a dish</option>
          <option value="product">so much of a product</option>
        </select></label
      >
      <label class="named"
        ><span>{{ want.sort === 'dish' ? 'Dish' : 'Product' }}</span
        ><input
          v-model="want.name"
          class="box"
          :list="want.sort === 'dish' ? 'meal-dishes' : 'meal-products'"
        /><i v-if="fault(`wants[${at}].name`)" class="dear">▲ {{ fault(`wants[${at}].name`) }}</i></label
      >
      <label class="named"
        ><span>{{ want.sort === 'dish' ? 'Plates' : 'How much' }}</span
        ><input
          v-model="want.amount"
          class="box"
          :placeholder="want.sort === 'dish' ? '40' : like('6 lb', '3 kg')"
        /><i v-if="fault(`wants[${at}].amount`)" class="dear">▲ {{ fault(`wants[${at}].amount`) }}</i></label
      >
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
    <label class="named"
      ><span>Method</span
      ><select v-model="draft.way" class="box">
        <option value="">choose</option>
        <option v-for="one in options.ways" :key="one" :value="one">{{ one }}</option>
      </select>
      <i v-if="fault('way')" class="dear">▲ {{ fault('way') }}</i></label
    >
    <label class="named"
      ><span>Meat, from the price list</span
      ><select v-model="draft.meat" class="box">
        <option value="">not on it</option>
        <option v-for="one in options.meats" :key="one" :value="one">{{ one }}</option>
      </select>
      <i v-if="fault('meat')" class="dear">▲ {{ fault('meat') }}</i></label
    >
    <label class="named"
      ><span>Cut</span
      ><input v-model="draft.cut" class="box" :placeholder="draft.meat || 'pork belly, skin on'" /><i
        v-if="fault('cut')"
        class="dear"
        >▲ {{ fault('cut') }}</i
      ></label
    >
    <label class="named"
      ><span>Price by weight</span
      ><input
        v-model="draft.price"
        class="box"
        :placeholder="draft.meat ? 'as listed' : like('3.79/lb', '8.40/kg')"
      /><i v-if="fault('price')" class="dear">▲ {{ fault('price') }}</i></label
    >
    <label class="named"
      ><span>A pack holds</span><input v-model="draft.pack" class="box" placeholder="any weight" /><i
        v-if="fault('pack')"
        class="dear"
        >▲ {{ fault('pack') }}</i
      ></label
    >
    <label class="named"
      ><span>A piece weighs, as it is laid</span
      ><input v-model="draft.piece" class="box" :placeholder="draft.pack || like('5 lb', '2.3 kg')" /><i
        v-if="fault('piece')"
        class="dear"
        >▲ {{ fault('piece') }}</i
      ></label
    >
    <label class="named"
      ><span>Enough in how many of 100</span><input v-model="draft.sure" class="box" inputmode="numeric" /><i
        v-if="fault('sure')"
        class="dear"
        >▲ {{ fault('sure') }}</i
      ></label
    >
    <label class="named"
      ><span>Reserve before the meal, hours</span
      ><input v-model="draft.reserve_hours" class="box" inputmode="decimal" placeholder="0" /><i
        v-if="fault('reserve_hours')"
        class="dear"
        >▲ {{ fault('reserve_hours') }}</i
      ></label
    >
    <label class="named"
      ><span>Hands, hours a day</span
      ><input v-model="draft.hours_a_day" class="box" inputmode="decimal" placeholder="not counted" /><i
        v-if="fault('hours_a_day')"
        class="dear"
        >▲ {{ fault('hours_a_day') }}</i
      ></label
    >
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

i {
  font-style: normal;
  font-size: 13px;
}
</style>
