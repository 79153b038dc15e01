<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { ref } from 'vue'
import { dayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import BooksHead from '@/places/books/BooksHead.vue'
import NewTrial from './NewTrial.vue'
import { useTrials } from './useTrials'

/** Trials: the same meat in different ways, side by side, tasted blind. */
const { data, error, refetch } = useTrials()
const isNew = ref(false)
const countText = (sheets: number): string => (sheets === 1 ? '1 taster' : `${sheets} tasters`)
</script>

<template>
  <BooksHead title="Trials">
    <ActButton v-may:cook first @click="isNew = !isNew">Begin a trial</ActButton>
  </BooksHead>
  <NewTrial v-if="isNew" />
  <LoadState v-if="!data" :error="error" what="the trials" @retry="refetch()" />
  <p v-else-if="!data.trials.length" class="panel">
    No trial yet. Cut a slab in two, cure the halves differently, and begin a trial with both: their yields,
    salt, time and cost stand side by side, and a blind tasting says which one people would have again.
  </p>
  <ul v-else class="rows" aria-label="Trials">
    <li v-for="trial in data.trials" :key="trial.id" class="panel">
      <RouterLink :to="{ name: 'trial', params: { id: trial.id } }"
        ><b>{{ trial.name }}</b></RouterLink
      >
      <span>{{ trial.sides.join(' · ') }}</span>
      <span class="quiet">
        begun {{ dayText(trial.begun_at) }}, {{ trial.sheets ? countText(trial.sheets) : 'not tasted yet'
        }}{{ trial.is_open ? ', tasting open' : '' }}
      </span>
    </li>
  </ul>
</template>

<style scoped>
.rows {
  display: grid;
  gap: 8px;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  padding: 12px 16px;
}

li .quiet {
  margin-left: auto;
}
</style>
