<script setup lang="ts">
import FoldAway from '@/shared/ui/FoldAway.vue'
import { computed, toRef } from 'vue'
import LoadState from '@/shared/ui/LoadState.vue'
import TwoColumns from '@/shared/ui/TwoColumns.vue'
import BooksHead from '@/places/books/BooksHead.vue'
import SidesTable from './SidesTable.vue'
import TastingPanel from './TastingPanel.vue'
import TastingResult from './TastingResult.vue'
import { useTrial } from './useTrials'

/** One trial: its sides beside each other, its tastings, and what the tasters said. */
const props = defineProps<{ id: number }>()
const { data, error, refetch, opening, put } = useTrial(toRef(props, 'id'))
const first = computed(() => data.value?.results[0])
const again = computed(() => data.value?.results[1])
const scales = computed(() => data.value?.results.slice(2) ?? [])
</script>

<template>
  <LoadState v-if="!data" :error="error" what="the trial" @retry="refetch()" />
  <template v-else>
    <BooksHead :title="`Trial: ${data.name}`" />
    <TwoColumns>
      <section v-if="first" class="panel" aria-label="What tasters said">
        <h2>{{ data.sheets }} {{ data.sheets === 1 ? 'taster' : 'tasters' }}, blind</h2>
        <p class="quiet small">
          Mean of five scales from 1 to 9; the bar holds the mean 8 times out of 10. Plates are compared
          within each taster, all pairs held to one chance of 1 in 20 together.
        </p>
        <TastingResult :result="first" />
        <TastingResult v-if="again" :result="again" is-part />
        <FoldAway word="Scale by scale">
          <p class="quiet small">Each scale is tested by itself: of five, one may stand out by chance.</p>
          <TastingResult v-for="one in scales" :key="one.key" :result="one" />
        </FoldAway>
      </section>
      <SidesTable :trial="data" />
      <template #side>
        <TastingPanel
          :trial="data"
          :problem="opening.problem.value"
          :is-saving="opening.isSaving.value"
          @open="opening.write({ id: data.tastings.length }, put)"
        />
      </template>
    </TwoColumns>
  </template>
</template>
