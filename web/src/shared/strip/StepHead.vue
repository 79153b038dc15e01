<script setup lang="ts">
import { ref } from 'vue'

/** A step's heading: point at it, tab to it, or walk with the arrows to hear where its money went. */
const props = defineProps<{ index: number; count: number }>()
const chosen = defineModel<number | null>('chosen', { required: true })
const button = ref<HTMLButtonElement | null>(null)

function walk(by: number): void {
  const all = button.value?.closest('[role="region"], section')?.querySelectorAll<HTMLElement>('[data-step]')
  all?.[Math.min(Math.max(props.index + by, 0), props.count - 1)]?.focus()
}
const isStop = (): boolean => (chosen.value ?? props.count - 1) === props.index
</script>

<template>
  <button
    ref="button"
    type="button"
    data-step
    :tabindex="isStop() ? 0 : -1"
    :aria-pressed="chosen === index"
    @focus="chosen = index"
    @click="chosen = index"
    @mouseenter="chosen = index"
    @keydown.left.prevent="walk(-1)"
    @keydown.right.prevent="walk(1)"
    @keydown.up.prevent="walk(-1)"
    @keydown.down.prevent="walk(1)"
  >
    <slot />
  </button>
</template>

<style scoped>
button {
  display: block;
  width: 100%;
  min-height: 54px;
  padding: 9px 10px;
  border: 0;
  background: none;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
}

button[aria-pressed='true'] {
  background: #f1f4f2;
}

button:focus-visible {
  outline-offset: -3px;
}
</style>
