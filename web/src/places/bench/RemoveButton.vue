<script setup lang="ts">
import { X } from '@lucide/vue'

defineProps<{ label: string }>()
defineEmits<{ remove: [] }>()
</script>

<template>
  <button type="button" :aria-label="label" @click="$emit('remove')">
    <X :size="18" aria-hidden="true" />
  </button>
</template>

<style scoped>
button {
  align-self: start;
  display: grid;
  place-items: center;
  width: 36px;
  height: 44px;
  margin-top: 22px;
  border: 0;
  background: none;
  color: var(--quiet);
  cursor: pointer;
}
</style>
