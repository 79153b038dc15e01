<script setup lang="ts">
import { useUnits } from '@/shared/quantity/useUnits'
import TypedInput from '@/shared/ui/TypedInput.vue'
import type { Recipe } from './recipes'

/** A brine as it was mixed, for all the meat in its tub: by the cup, the quart or the gram. */
defineProps<{ path: string }>()
const recipe = defineModel<Recipe>('recipe', { required: true })
const { like } = useUnits()
</script>

<template>
  <TypedInput
    v-model="recipe.mixed_water"
    label="Water in the tub"
    :path="`${path}mixed_water`"
    :placeholder="like('8 qt, or 3 kg', '3 kg, or 8 qt')"
  />
  <TypedInput
    v-model="recipe.mixed_salt"
    label="Salt in it"
    :path="`${path}mixed_salt`"
    :placeholder="like('1 cup, or 300 g', '300 g, or 1 cup')"
  />
  <TypedInput
    v-model="recipe.mixed_sugar"
    label="Sugar in it"
    :path="`${path}mixed_sugar`"
    placeholder="none"
  />
  <TypedInput
    v-if="recipe.agent !== 'none'"
    v-model="recipe.mixed_agent"
    label="Curing salt in it"
    :path="`${path}mixed_agent`"
    :placeholder="like('2 tsp, or 12 g', '12 g, or 2 tsp')"
  />
</template>
