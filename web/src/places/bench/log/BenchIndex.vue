<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { useToday } from '@/shared/api/useBatch'
import { marksText } from '@/shared/parts/marksText'
import LoadState from '@/shared/ui/LoadState.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { computed } from 'vue'
import { weighWord } from '@/shared/parts/stepWords'

/** Every batch under way, and the ways to work on it: weigh, cure, look up its days. */
const { data: today, error, refetch } = useToday()
const { weightText } = useUnits()
const batches = computed(() => today.value?.under_way ?? [])
const marks = (pieces: string[]): string => marksText(pieces) || 'whole'
</script>

<template>
  <div class="head">
    <h1>Bench</h1>
    <span class="quiet">trim, cure, turn, taste, weigh</span>
    <div class="acts">
      <ActLink :to="{ name: 'batches', query: { state: 'under-way' } }">All under way</ActLink>
    </div>
  </div>
  <LoadState v-if="!today" :error="error" what="what is under way" @retry="refetch()" />
  <div v-else-if="!batches.length" class="panel empty">
    <p>No batches under way. Start one with what you bought.</p>
    <ActLink v-may:cook first :to="{ name: 'start' }">Start a batch</ActLink>
  </div>
  <ul v-else aria-label="Batches under way">
    <li v-for="batch in batches" :key="batch.code" class="panel">
      <div class="who">
        <h2>
          <RouterLink :to="{ name: 'log', params: { code: batch.code } }">{{ batch.name }}</RouterLink>
        </h2>
        <p>
          <span class="badge">{{ batch.code }}</span> <b>{{ marks(batch.pieces) }}</b>
        </p>
        <p class="quiet small">{{ batch.cut }}, {{ batch.stage }}, {{ weightText(batch.weight) }}</p>
      </div>
      <div class="ways">
        <ActLink v-may:helper first :to="{ name: 'weigh', params: { code: batch.code } }">
          {{ batch.next ? weighWord(batch.next.kind) : 'Weigh' }}
        </ActLink>
        <ActLink :to="{ name: 'cure', params: { code: batch.code } }">Cure desk</ActLink>
        <ActLink :to="{ name: 'diary', params: { code: batch.code } }">Diary</ActLink>
        <ActLink :to="{ name: 'log', params: { code: batch.code } }">Log</ActLink>
      </div>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 10px;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  align-items: center;
  justify-content: space-between;
}

h2 a {
  text-decoration: none;
}

.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.empty {
  display: grid;
  gap: 12px;
  justify-items: center;
  padding: 40px 16px;
}
</style>
