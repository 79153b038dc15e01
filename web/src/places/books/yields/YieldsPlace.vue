<script setup lang="ts">
import { computed } from 'vue'
import { capital } from '@/shared/quantity/capital'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import { useInAddress } from '@/shared/ui/useInAddress'
import BooksHead from '@/places/books/BooksHead.vue'
import YieldDots from './YieldDots.vue'
import { type By, type Part, useYieldBook } from '@/places/books/useBooks'

/** Yields by cut and way or by step, parted by what may matter, and what changes go with. */
const by = useInAddress<By>('by', 'way')
const part = useInAddress<Part>('part', 'none')
const { data, error, refetch } = useYieldBook(by, part)
const bys: { value: By; word: string }[] = [
  { value: 'way', word: 'Cut and method' },
  { value: 'step', word: 'Step' },
]
const parts: { value: Part; word: string }[] = [
  { value: 'none', word: 'Together' },
  { value: 'source', word: 'Bought from' },
  { value: 'season', word: 'Season' },
  { value: 'cook', word: 'Cook' },
  { value: 'thickness', word: 'Thickness' },
  { value: 'inside', word: 'Inside temperature' },
]
const shown = computed(() => data.value?.sorts.filter((sort) => sort.parts.length) ?? [])
const unsaid = computed(() => data.value?.sorts.reduce((sum, sort) => sum + sort.unsaid, 0) ?? 0)
const clear = computed(() => data.value?.changes.filter((one) => one.is_more_than_chance) ?? [])
const unclear = computed(() => data.value?.changes.filter((one) => !one.is_more_than_chance) ?? [])
</script>

<template>
  <BooksHead title="Yields" />
  <div class="choices">
    <ChoiceBar v-model="by" label="Of each" :choices="bys" />
    <ChoiceBar v-model="part" label="Split by" :choices="parts" />
  </div>
  <LoadState v-if="!data" :error="error" what="the yields" @retry="refetch()" />
  <template v-else>
    <section class="panel" aria-label="Yields">
      <h2>{{ by === 'way' ? 'Sliced weight, of what was bought' : 'Kept of each step' }}</h2>
      <p class="quiet small">
        Each dot is a batch, the last one dark; the mark is the middle, the band holds eight in ten. Click a
        dot for its batch. Of each sort the latest {{ data.read_of_each }} are shown.
      </p>
      <YieldDots v-if="shown.length" :sorts="shown" :is-step="by === 'step'" />
      <p v-else class="quiet">
        {{ data.batches ? 'This was not recorded of any batch yet.' : 'No batch is finished yet.' }}
      </p>
      <p v-if="unsaid && part !== 'none'" class="quiet small">
        Left out: {{ unsaid }} where it was not recorded.
      </p>
    </section>
    <section class="panel" aria-label="What a change would bring">
      <h2>What a change would bring</h2>
      <p v-if="!data.changes.length" class="quiet">
        Nothing to compare yet: it takes three batches each of two sources, cooks or seasons, or a fire whose
        inside was read.
      </p>
      <ul v-for="(list, at) in [clear, unclear]" :key="at" class="changes" :class="{ quiet: at === 1 }">
        <li v-for="one in list" :key="`${one.sort} ${one.said}`">
          <b>{{ one.said }}</b> <span>({{ one.sort }})</span>
          <p class="quiet small">{{ capital(one.basis) }}.</p>
        </li>
      </ul>
      <p v-if="data.changes.length" class="quiet small">
        Batches of different sources or days may differ in more than that. To be sure, try both on one slab.
      </p>
    </section>
  </template>
</template>

<style scoped>
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 28px;
  margin-bottom: 12px;
}

section {
  margin-bottom: 14px;
}

.changes {
  display: grid;
  gap: 10px;
  margin: 8px 0;
}
</style>
