<script setup lang="ts">
/** Knuckle-sized figures; the keyboard's own do the same. */
defineProps<{ unit: string }>()
const typed = defineModel<string>({ required: true })
const keys = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0']
function press(key: string): void {
  if (key === '.' && typed.value.includes('.')) return
  if (typed.value.length < 7) typed.value += key
}
</script>

<template>
  <div class="pad" role="group" aria-label="Number pad">
    <button v-for="key in keys" :key="key" type="button" @click="press(key)">{{ key }}</button>
    <button type="button" aria-label="Delete the last figure" @click="typed = typed.slice(0, -1)">⌫</button>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: repeat(3, minmax(64px, 110px));
  gap: 8px;
}

button {
  min-height: 58px;
  border: 2px solid #444f52;
  border-radius: 6px;
  background: #1f272a;
  color: #eef2ef;
  font: inherit;
  font-size: 24px;
  font-weight: 640;
  cursor: pointer;
}

@media (max-height: 720px) {
  button {
    min-height: 48px;
  }
}
</style>
