<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useToday } from '@/shared/api/useBatch'
import LoadState from '@/shared/ui/LoadState.vue'
import { type PlaceName, places } from '@/shared/ui/places'
import BatchRow from '@/shared/parts/BatchRow.vue'

/** A place whose own view is not built yet: what it will be, and its batches. */
const lines: Record<PlaceName, string> = {
  today: '',
  buy: '',
  bench: 'Choose a batch to record what was done with it.',
  fire: '',
  slice: 'Packs, labels and the freezer will be here. Until then, record slicing in the log of its batch.',
  verdict: '',
  books: '',
}
/** Where the pieces listed here are; empty: every batch. */
const hangs: Partial<Record<PlaceName, string>> = {
  bench: 'bench',
  slice: 'slice',
}

const route = useRoute()
const here = computed(() => route.meta.place)
const word = computed(() => places.find((place) => place.name === here.value)?.word ?? '')
const { data: today, error, refetch } = useToday()
const batches = computed(() => {
  const all = [...(today.value?.under_way ?? []), ...(today.value?.finished ?? [])]
  const hook = hangs[here.value]
  return hook ? all.filter((batch) => batch.place === hook) : all
})
</script>

<template>
  <div class="head">
    <h1>{{ word }}</h1>
    <div class="acts">
      <RouterLink class="act first" :to="{ name: 'start' }">Start a batch</RouterLink>
    </div>
  </div>
  <p class="panel line">{{ lines[here] }}</p>
  <LoadState v-if="!today" :error="error" what="the batches" @retry="refetch()" />
  <template v-else>
    <ul v-if="batches.length" class="rows" :aria-label="`Batches at ${word}`">
      <BatchRow v-for="batch in batches" :key="batch.code" :batch="batch" />
    </ul>
    <p v-else class="quiet">
      No batch is here now. <RouterLink :to="{ name: 'today' }">See all that are under way</RouterLink>.
    </p>
  </template>
</template>

<style scoped>
.line {
  margin-bottom: 14px;
}

.rows {
  display: grid;
  gap: 10px;
}
</style>
