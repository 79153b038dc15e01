<script setup lang="ts" generic="T extends string">
import { NRadioButton, NRadioGroup } from 'naive-ui'

/** One of a few, all in sight. */
defineProps<{ label: string; choices: { value: T; word: string }[]; quietLabel?: boolean }>()
const value = defineModel<T | null>({ required: true })
</script>

<template>
  <fieldset>
    <legend :class="{ unseen: quietLabel }">{{ label }}</legend>
    <NRadioGroup v-model:value="value" class="bar">
      <NRadioButton v-for="choice in choices" :key="choice.value" :value="choice.value">
        {{ choice.word }}
      </NRadioButton>
    </NRadioGroup>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}

legend {
  padding: 0;
  font-weight: 600;
  font-size: 14px;
  margin-bottom: 3px;
}

.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  height: auto;
}

.bar :deep(.n-radio-group__splitor) {
  display: none;
}

.bar :deep(.n-radio-button) {
  border: 1px solid #8b9692;
  border-radius: 4px;
  padding: 0 9px;
  box-shadow: none;
}

.bar :deep(.n-radio-button__state-border) {
  display: none;
}

.bar :deep(.n-radio-button:has(:focus-visible)) {
  outline: 3px solid var(--rose);
  outline-offset: 2px;
}
</style>
