<script setup lang="ts">
import type { Batch, Verdict } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** Where lots came from that are pieces of other batches, what changed there since, and where pieces went. */
defineProps<{ batch: Batch; verdict: Verdict | undefined }>()
const { money, bothText } = useUnits()
</script>

<template>
  <section v-if="batch.sources.length || verdict?.takers.length" class="panel" aria-label="Linked batches">
    <h2>Linked batches</h2>
    <ul>
      <li v-for="source in batch.sources" :key="source.lot">
        <b>{{ source.lot }}</b> is {{ source.piece }} of
        <RouterLink :to="{ name: 'strip', params: { code: source.batch } }"
          >{{ source.batch }} {{ source.name }}</RouterLink
        >: {{ bothText(source.weight) }}, bringing {{ money(source.carried) }} with it.
        <p v-if="source.has_changed" class="care">
          {{ source.batch }} was corrected since: it carried {{ money(source.carried_then) }} on the day it
          was taken.
        </p>
      </li>
      <li v-for="taker in verdict?.takers ?? []" :key="`${taker.batch} ${taker.piece}`">
        <b>{{ taker.piece }}</b> went into
        <RouterLink :to="{ name: 'strip', params: { code: taker.batch } }"
          >{{ taker.batch }} {{ taker.name }}</RouterLink
        >.
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  display: grid;
  gap: 6px;
  margin-top: 4px;
}

.care {
  border-left: 4px solid var(--care);
  padding-left: 8px;
  color: var(--care-ink);
  font-size: 14px;
}
</style>
