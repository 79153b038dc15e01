<script setup lang="ts">
import FoldAway from '@/shared/ui/FoldAway.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'
import { renewShown } from '@/shared/api/renewShown'
import { useSlug } from '@/shared/api/useSlug'
import { useUnits } from '@/shared/quantity/useUnits'
import SaveBar from '@/shared/ui/SaveBar.vue'

/** A frying of this batch's own slices, raw and cooked, so that cooked prices and plates are its own. */
const props = defineProps<{ code: string; seen: number }>()
const kitchen_slug = useSlug()
const queries = useQueryClient()
const { like } = useUnits()
const draft = reactive({ raw: '', cooked: '' })
const frying = useKitchenWrite('fry-here', '/batches/{code}/entries', {
  path: () => ({ code: props.code }),
  typed: () => draft,
})
function record(): void {
  const content = { act: 'fry' as const, kept: '', ...draft }
  void frying.write({ content, seen: props.seen, reason: '' }, () => {
    void queries.invalidateQueries({ queryKey: ['batch', kitchen_slug.value, props.code] })
    renewShown(queries)
    Object.assign(draft, { raw: '', cooked: '' })
  })
}
const isReady = computed(() => draft.raw !== '' && draft.cooked !== '')
</script>

<template>
  <FoldAway class="panel" word="Fry a few slices">
    <form v-may:helper @submit.prevent="record">
      <TypedInput v-model="draft.raw" label="Raw" :placeholder="like('4 oz', '112 g')" />
      <TypedInput v-model="draft.cooked" label="Cooked" :placeholder="like('1.7 oz', '47 g')" />
      <SaveBar
        v-if="isReady || frying.problem.value"
        class="wide"
        word="Record the frying"
        :state="frying.state.value"
        :problem="frying.problem.value"
        @retry="frying.retry()"
      />
      <p v-if="frying.state.value === 'saved'" class="good wide" role="status">✓ recorded</p>
    </form>
  </FoldAway>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}

.wide {
  grid-column: 1 / -1;
}
</style>
