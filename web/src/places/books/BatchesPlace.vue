<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import DateBox from '@/shared/ui/DateBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { refDebounced } from '@vueuse/core'
import { computed, watch } from 'vue'
import BatchRow from '@/shared/parts/BatchRow.vue'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import { useInAddress } from '@/shared/ui/useInAddress'
import { type BatchState, useBatches } from './useBatches'

/** Every batch ever made, found by word, code, cut and day. */
const words = useInAddress('find', '')
const state = useInAddress<BatchState>('state', '')
const since = useInAddress('since', '')
const until = useInAddress('until', '')
const page = useInAddress<string>('page', '1')
const sought = refDebounced(words, 250)
watch([sought, state, since, until], () => (page.value = '1'))
const wanted = computed(() => ({
  words: sought.value,
  state: state.value,
  since: since.value,
  until: until.value,
  page: Math.max(1, Math.floor(Number(page.value)) || 1),
}))
const { data, error, refetch, isPlaceholderData } = useBatches(wanted)
const states: { value: BatchState; word: string }[] = [
  { value: '', word: 'All' },
  { value: 'under-way', word: 'Under way' },
  { value: 'finished', word: 'Finished' },
]
const isFiltered = computed(() => Boolean(sought.value || state.value || since.value || until.value))
const count = computed(() => {
  if (isPlaceholderData.value) return 'searching …'
  const total = data.value?.total ?? 0
  const found = isFiltered.value ? ' found' : ''
  return `${total.toLocaleString('en-US')} ${total === 1 ? 'batch' : 'batches'}${found}`
})
function turn(by: number): void {
  page.value = String((data.value?.page ?? 1) + by)
  window.scrollTo({ top: 0 })
}
</script>

<template>
  <div class="head">
    <h1>All batches</h1>
    <span v-if="data" class="quiet" role="status">{{ count }}</span>
    <div class="acts">
      <ActLink v-may:cook first :to="{ name: 'start' }">Start a batch</ActLink>
    </div>
  </div>
  <form class="filter" role="search" @submit.prevent>
    <TypedInput v-model="words" class="find" label="Name, cut or code" type="search" />
    <ChoiceBar v-model="state" label="State" quiet-label :choices="states" />
    <div class="days">
      <DateBox v-model="since" label="Started from" />
      <DateBox v-model="until" label="until" />
    </div>
  </form>
  <LoadState v-if="!data" :error="error" what="the batches" @retry="refetch()" />
  <template v-else>
    <ul v-if="data.batches.length" class="rows" aria-label="Batches">
      <BatchRow v-for="batch in data.batches" :key="batch.code" :batch="batch" />
    </ul>
    <p v-else class="panel empty quiet">
      {{ isFiltered ? 'No batch matches.' : 'No batches yet. Start one with what you bought.' }}
    </p>
    <nav v-if="data.pages > 1" class="pages" aria-label="Pages">
      <ActButton small :disabled="data.page <= 1" @click="turn(-1)">Newer</ActButton>
      <span>page {{ data.page }} of {{ data.pages }}</span>
      <ActButton small :disabled="data.page >= data.pages" @click="turn(1)"> Older </ActButton>
    </nav>
  </template>
</template>

<style scoped>
.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: end;
  margin-bottom: 14px;
}

.find {
  flex: 1 1 240px;
}

.days {
  display: flex;
  gap: 12px;
}

.rows {
  display: grid;
  gap: 10px;
}

.pages {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-top: 12px;
}

.empty {
  padding: 40px 16px;
  text-align: center;
}
</style>
