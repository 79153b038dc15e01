<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { dayText } from '@/shared/quantity/when'

/** Batches and steps out of the usual, with what else was different; no cause is claimed. */
defineProps<{ book: Schemas['UnusualBookOut']; most?: number }>()
</script>

<template>
  <section class="panel" aria-label="Unusual results">
    <h2>Unusual results</h2>
    <p v-if="!book.unusual.length" class="quiet">
      Nothing lies beyond what 19 of 20 others keep. A batch is compared once there are five others like it.
    </p>
    <ul v-else>
      <li v-for="(one, at) in book.unusual.slice(0, most)" :key="`${one.code} ${at}`">
        <p>
          <RouterLink :to="{ name: 'strip', params: { code: one.code } }"
            ><b>{{ one.code }}</b></RouterLink
          >
          {{ one.said }}.
          <template v-if="one.differed.length">Different then: {{ one.differed.join('; ') }}.</template>
          <template v-else>Nothing else on record was different.</template>
        </p>
        <p class="quiet small">{{ dayText(one.at) }}: {{ one.basis }}.</p>
      </li>
    </ul>
    <p v-if="book.unusual.length" class="quiet small">What was different need not be the cause.</p>
  </section>
</template>

<style scoped>
ul {
  display: grid;
  gap: 12px;
  margin: 8px 0;
}
</style>
