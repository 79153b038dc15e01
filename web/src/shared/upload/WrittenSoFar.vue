<script setup lang="ts">
import { computed } from 'vue'
import type { Uploaded } from './useUpload'

/** How far a table is written; where it goes on from there, once it is done, in the slot. */
const props = defineProps<{ kept: Uploaded }>()
const part = computed(() => Math.round((100 * props.kept.next_row) / props.kept.rows))
</script>

<template>
  <section class="panel" aria-live="polite">
    <p>
      <b>{{ kept.is_done ? 'Saved' : 'Saving' }}:</b> {{ kept.next_row }} of {{ kept.rows }} rows,
      {{ kept.added }} new, {{ kept.known }} already saved, {{ kept.faulty }} left out
    </p>
    <progress :value="kept.next_row" :max="kept.rows" :aria-label="`${part} percent saved`" />
    <slot v-if="kept.is_done" />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  justify-items: start;
}

progress {
  width: 100%;
  height: 18px;
  accent-color: var(--rose);
}
</style>
