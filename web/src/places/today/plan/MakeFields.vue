<script setup lang="ts">
import { useUnits } from '@/shared/quantity/useUnits'
import MealField from './MealField.vue'
import type { MakeDraft, Meals } from './useMeals'

/** How one thing is made: by which method, of which meat. `fault`: what is wrong at a field. */
defineProps<{
  options: Meals
  fault: (name: string) => string | undefined
  isOnly: boolean
  number: number
  products: string[]
}>()
defineEmits<{ remove: [] }>()
const make = defineModel<MakeDraft>({ required: true })
const { like } = useUnits()
</script>

<template>
  <fieldset class="make">
    <legend>{{ isOnly ? 'How it is made' : `Made ${number}: ${make.product || 'all else'}` }}</legend>
    <MealField v-if="!isOnly || make.product" word="Makes" :fault="fault('product')"
      ><select v-model="make.product" class="box">
        <option value="">all else</option>
        <option v-for="one in new Set([...products, make.product].filter(Boolean))" :key="one" :value="one">
          {{ one }}
        </option>
      </select></MealField
    >
    <MealField word="Method" :fault="fault('way')"
      ><select v-model="make.way" class="box">
        <option value="">choose</option>
        <option v-for="one in options.ways" :key="one" :value="one">{{ one }}</option>
      </select></MealField
    >
    <MealField word="Meat, from the price list" :fault="fault('meat')"
      ><select v-model="make.meat" class="box">
        <option value="">not on it</option>
        <option v-for="one in options.meats" :key="one" :value="one">{{ one }}</option>
      </select></MealField
    >
    <MealField word="Cut" :fault="fault('cut')"
      ><input v-model="make.cut" class="box" :placeholder="make.meat || 'pork belly, skin on'"
    /></MealField>
    <MealField word="Price by weight" :fault="fault('price')"
      ><input
        v-model="make.price"
        class="box"
        :placeholder="make.meat ? 'as listed' : like('3.79/lb', '8.40/kg')"
    /></MealField>
    <MealField word="A pack holds" :fault="fault('pack')"
      ><input v-model="make.pack" class="box" placeholder="any weight"
    /></MealField>
    <MealField word="A piece weighs" :fault="fault('piece')"
      ><input v-model="make.piece" class="box" :placeholder="make.pack || like('5 lb', '2.3 kg')"
    /></MealField>
    <label class="named"
      ><span>Places a piece takes</span
      ><select v-model.number="make.places" class="box">
        <option v-for="count in 6" :key="count" :value="count">{{ count }}</option>
      </select></label
    >
    <label class="named"
      ><span>Loads of the smoker</span
      ><select v-model.number="make.loads" class="box">
        <option v-for="count in 4" :key="count" :value="count">{{ count }}</option>
      </select></label
    >
    <label v-if="!isOnly" class="named"
      ><span>Ready before the meal</span
      ><select v-model.number="make.days_early" class="box">
        <option v-for="days in 15" :key="days" :value="days - 1">
          {{ days === 1 ? 'the same day' : days === 2 ? '1 day' : `${days - 1} days` }}
        </option>
      </select></label
    >
    <button v-if="!isOnly" type="button" class="act small" @click="$emit('remove')">Remove this one</button>
  </fieldset>
</template>

<style scoped>
.make {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px;
  align-items: end;
  margin: 0;
  padding: 8px 0 0;
  border: 0;
  border-top: 1px solid var(--edge);
}

legend {
  float: left;
  grid-column: 1 / -1;
  padding: 0;
  font-weight: 640;
}
</style>
