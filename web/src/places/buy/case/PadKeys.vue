<script setup lang="ts">
/** Digits for a thumb. */
defineEmits<{ digit: [digit: string]; back: [] }>()
const digits = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '00', '0']
</script>

<template>
  <div class="keys" role="group" aria-label="Digits">
    <button v-for="digit in digits" :key="digit" type="button" @click="$emit('digit', digit)">
      {{ digit }}
    </button>
    <button type="button" aria-label="Take the last digit back" @click="$emit('back')">←</button>
  </div>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}

button {
  min-height: 52px;
  font: inherit;
  font-size: 22px;
  font-weight: 680;
  background: #f1f4f2;
  border: 1px solid #8b9692;
  border-radius: 4px;
  color: var(--ink);
  cursor: pointer;
  touch-action: manipulation;
}

button:active {
  background: #dbe1de;
}
</style>
