<script setup lang="ts">
import { computed } from 'vue'

/** One scale of one plate: a row of numbers to touch. */
const props = defineProps<{
  name: string
  label: string
  low: string
  high: string
  least: number
  most: number
  score: number | null
}>()
defineEmits<{ set: [score: number] }>()
const steps = computed(() =>
  Array.from({ length: props.most - props.least + 1 }, (_, at) => props.least + at),
)
</script>

<template>
  <fieldset>
    <legend>{{ label }}</legend>
    <div class="steps">
      <label v-for="step in steps" :key="step" :class="{ on: step === score }">
        <input
          type="radio"
          class="unseen"
          :name="name"
          :value="step"
          :checked="step === score"
          @change="$emit('set', step)"
        />
        {{ step }}
      </label>
    </div>
    <div class="ends small quiet" aria-hidden="true">
      <span>{{ low }}</span><span>{{ high }}</span>
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 8px 0 0;
  padding: 0;
  min-width: 0;
}

legend {
  padding: 0;
  font-weight: 600;
}

.steps {
  display: grid;
  grid-template-columns: repeat(9, minmax(0, 1fr));
  gap: 3px;
}

label {
  position: relative;
  min-height: 44px;
  display: grid;
  place-items: center;
  border: 1px solid #8b9692;
  border-radius: 4px;
  font-weight: 600;
  cursor: pointer;
}

label.on {
  background: var(--ink);
  border-color: var(--ink);
  color: #fff;
}

label:has(:focus-visible) {
  outline: 3px solid var(--rose);
  outline-offset: 2px;
}

.ends {
  display: flex;
  justify-content: space-between;
}
</style>
