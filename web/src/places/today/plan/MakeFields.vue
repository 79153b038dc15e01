<script setup lang="ts">
import TypedInput from '@/shared/ui/TypedInput.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import { useUnits } from '@/shared/quantity/useUnits'

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
    <SelectBox
      v-if="!isOnly || make.product"
      v-model="make.product"
      label="Makes"
      :problem="fault('product')"
    >
      <option value="">all else</option>
      <option v-for="one in new Set([...products, make.product].filter(Boolean))" :key="one" :value="one">
        {{ one }}
      </option>
    </SelectBox>
    <SelectBox v-model="make.way" label="Method" :problem="fault('way')">
      <option value="">choose</option>
      <option v-for="one in options.ways" :key="one" :value="one">{{ one }}</option>
    </SelectBox>
    <SelectBox v-model="make.meat" label="Meat, from the price list" :problem="fault('meat')">
      <option value="">not on it</option>
      <option v-for="one in options.meats" :key="one" :value="one">{{ one }}</option>
    </SelectBox>
    <TypedInput
      v-model="make.cut"
      label="Cut"
      :problem="fault('cut')"
      :placeholder="make.meat || 'pork belly, skin on'"
    />
    <TypedInput
      v-model="make.price"
      label="Price by weight"
      :problem="fault('price')"
      :placeholder="make.meat ? 'as listed' : like('3.79/lb', '8.40/kg')"
    />
    <TypedInput v-model="make.pack" label="A pack holds" :problem="fault('pack')" placeholder="any weight" />
    <TypedInput
      v-model="make.piece"
      label="A piece weighs"
      :problem="fault('piece')"
      :placeholder="make.pack || like('5 lb', '2.3 kg')"
    />
    <SelectBox v-model="make.places" label="Places a piece takes">
      <option v-for="count in 6" :key="count" :value="count">{{ count }}</option>
    </SelectBox>
    <SelectBox v-model="make.loads" label="Loads of the smoker">
      <option v-for="count in 4" :key="count" :value="count">{{ count }}</option>
    </SelectBox>
    <SelectBox v-if="!isOnly" v-model="make.days_early" label="Ready before the meal">
      <option v-for="days in 15" :key="days" :value="days - 1">
        {{ days === 1 ? 'the same day' : days === 2 ? '1 day' : `${days - 1} days` }}
      </option>
    </SelectBox>
    <ActButton v-if="!isOnly" small @click="$emit('remove')">Remove this one</ActButton>
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
