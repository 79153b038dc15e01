<script setup lang="ts">
import { NButton } from 'naive-ui'

/** What is checked off with a knuckle. */
defineProps<{ label: string; done?: boolean; disabled?: boolean }>()
</script>

<template>
  <NButton
    circle
    class="ring"
    :class="{ done }"
    attr-type="button"
    :disabled="disabled"
    :aria-pressed="done"
    :aria-label="label"
  >
    <span v-if="done" aria-hidden="true">✓</span>
  </NButton>
</template>

<style scoped>
.ring {
  --n-width: 46px !important;
  --n-height: 46px !important;
  --n-border: 3px solid var(--ink) !important;
  font-size: 20px;
  font-weight: 800;
}

.ring.done {
  --n-border: 3px solid var(--good) !important;
  color: var(--good);
}
</style>
