<script setup lang="ts">
import TypedInput from '@/shared/ui/TypedInput.vue'
import type { Recipe } from './recipes'

/** A brine as it was mixed, for all the meat in its tub: by the cup, the quart or the gram. */
defineProps<{ path: string }>()
const recipe = defineModel<Recipe>('recipe', { required: true })
</script>

<template>
  <TypedInput
    v-model="recipe.mixed_water"
    label="Water in the tub"
    :path="`${path}mixed_water`"
    placeholder="8 qt, or 3 kg"
  />
  <TypedInput
    v-model="recipe.mixed_salt"
    label="Salt in it"
    :path="`${path}mixed_salt`"
    placeholder="1 cup, or 300 g"
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
    placeholder="2 tsp, or 12 g"
  />
</template>
