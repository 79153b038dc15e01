<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, type ProblemError, type Schemas, take } from '@/shared/api/client'
import { useSlug, useToday } from '@/shared/api/useBatch'
import LoadState from '@/shared/ui/LoadState.vue'
import BatchRow from '@/shared/parts/BatchRow.vue'
import FindBox from './FindBox.vue'
import LostTable from './LostTable.vue'
import YieldTable from './YieldTable.vue'

/** What a kitchen's finished batches say: what each step keeps here, and the batches themselves. */
const slug = useSlug()
const {
  data: yields,
  error,
  refetch,
} = useQuery<Schemas['YieldsOut'], ProblemError>({
  queryKey: computed(() => ['yields', slug.value]),
  queryFn: () =>
    take(api.GET('/api/kitchens/{kitchen_slug}/yields', { params: { path: { kitchen_slug: slug.value } } })),
})
const { data: today } = useToday()
</script>

<template>
  <div class="head">
    <h1>Books</h1>
    <div class="acts">
      <RouterLink class="act" :to="{ name: 'import' }">Import a batch document</RouterLink>
      <RouterLink class="act" :to="{ name: 'forecasts' }">How good forecasts were</RouterLink>
      <RouterLink class="act first" :to="{ name: 'batches' }">All batches</RouterLink>
    </div>
  </div>
  <FindBox />
  <LoadState v-if="!yields" :error="error" what="the yields" @retry="refetch()" />
  <YieldTable v-else :yields="yields" />
  <LostTable />
  <template v-if="today?.finished.length">
    <h2 class="lately">Recently finished</h2>
    <ul class="rows" aria-label="Batches">
      <BatchRow v-for="batch in today.finished" :key="batch.code" :batch="batch" />
    </ul>
  </template>
</template>

<style scoped>
.lately {
  margin: 20px 0 8px;
}

.rows {
  display: grid;
  gap: 10px;
}
</style>
