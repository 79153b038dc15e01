<script setup lang="ts" generic="T extends string">
import { NRadioButton, NRadioGroup } from 'naive-ui'

/** One of a few, all in sight. */
defineProps<{ label: string; choices: { value: T; word: string }[]; quietLabel?: boolean }>()
const value = defineModel<T>({ required: true })
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
}
</style>
