<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import type { Cured, Recipe } from './recipes'
import RecipeFields from './RecipeFields.vue'
import type { DeskFacts } from './useDesk'
import { useKeepRecipe } from './usePutIn'

/** Which recipe, and its amounts below: closed while one weighs, open while one thinks. */
const props = defineProps<{ facts: DeskFacts; piece: Cured; path: string; canShare: boolean }>()
const recipe = defineModel<Recipe>('recipe', { required: true })
const emit = defineEmits<{ same: []; kept: [facts: DeskFacts] }>()
const { state, problem, keep } = useKeepRecipe((facts) => emit('kept', facts))
const isOpen = ref(false)
const school = computed(() => props.facts.schools.find((one) => one.key === recipe.value.school)?.label ?? '')
const saved = computed(() => props.facts.recipes.find((one) => one.name === recipe.value.name))
const isChanged = computed(
  () => !saved.value || JSON.stringify(saved.value.input) !== JSON.stringify(recipe.value),
)
const title = computed(() => {
  if (!saved.value) return school.value
  return isChanged.value
    ? `${saved.value.name}, changed`
    : `${saved.value.name}, version ${saved.value.version}`
})
function choose(name: string): void {
  const found = props.facts.recipes.find((one) => one.name === name)
  if (found) recipe.value = JSON.parse(JSON.stringify(found.input)) as Recipe
}
</script>

<template>
  <div class="bar">
    <div class="line">
      <SelectBox label="Recipe" :model-value="saved?.name ?? ''" @update:model-value="choose($event)">
        <option value="">{{ saved ? 'another …' : 'not saved yet' }}</option>
        <option v-for="one in facts.recipes" :key="one.name" :value="one.name">{{ one.name }}</option>
      </SelectBox>
      <ActButton :aria-expanded="isOpen" @click="isOpen = !isOpen">
        {{ isOpen ? 'Close the amounts' : 'Method and amounts' }}
      </ActButton>
    </div>
    <p class="quiet small">
      {{ title }}<template v-if="saved && !isChanged">, saved by {{ saved.by }}</template>
      <ActButton v-if="canShare" small quiet @click="$emit('same')">Same recipe for all pieces</ActButton>
    </p>
    <div v-show="isOpen" class="open">
      <RecipeFields v-model:recipe="recipe" :facts="facts" :piece="piece" :path="path" />
      <form v-may:cook class="keep" @submit.prevent="keep(recipe)">
        <TypedInput v-model="recipe.name" label="Save it under the name" maxlength="80" />
        <ActButton submit :disabled="!isChanged || state === 'saving'"> Save the recipe </ActButton>
      </form>
      <p v-if="state === 'saved' && !isChanged" class="good" role="status">
        ✓ Saved as version {{ saved?.version }}.
      </p>
      <ProblemNote v-if="problem" :problem="problem" />
    </div>
  </div>
</template>

<style scoped>
.bar {
  display: grid;
  gap: 6px;
  padding-bottom: 10px;
  border-bottom: 1px solid var(--edge);
}

.line,
.keep {
  display: flex;
  gap: 10px;
  align-items: end;
}

.line .field,
.keep .field {
  flex: 1 1 0;
  min-width: 0;
}

.open {
  display: grid;
  gap: 8px;
}

@media (max-width: 719px) {
  .line,
  .keep {
    flex-direction: column;
    align-items: stretch;
  }
}
</style>
