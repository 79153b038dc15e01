<script setup lang="ts" generic="T extends string">
/** A few choices for a thumb; touching the chosen one again takes it back where `clears` says so. */
const props = defineProps<{ label: string; choices: { value: T; word: string }[]; clears?: boolean }>()
const value = defineModel<T>({ required: true })

function touch(chosen: T): void {
  value.value = props.clears && value.value === chosen ? ('' as T) : chosen
}
</script>

<template>
  <div class="chips" role="group" :aria-label="label">
    <button
      v-for="choice in choices"
      :key="choice.value"
      type="button"
      :aria-pressed="value === choice.value"
      @click="touch(choice.value)"
    >
      {{ choice.word }}
    </button>
  </div>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

button {
  min-height: 44px;
  padding: 0 12px;
  border: 1px solid #8b9692;
  border-radius: 4px;
  background: var(--panel);
  font: inherit;
  font-weight: 600;
  font-stretch: 90%;
  color: var(--ink);
  cursor: pointer;
  touch-action: manipulation;
}

button[aria-pressed='true'] {
  background: var(--ink);
  border-color: var(--ink);
  color: #ffffff;
}
</style>
