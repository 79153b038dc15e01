import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { keepPreviousData } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'

export type BatchState = '' | 'under-way' | 'finished'
/** What is looked for; days as in an address, "2026-11-26", empty: any. */
export type Wanted = { words: string; state: BatchState; since: string; until: string; page: number }

/** A page of every batch ever made that is wanted, the latest entry first. */
export function useBatches(wanted: Ref<Wanted>) {
  const query = computed(() => {
    const { words, state, since, until, page } = wanted.value
    return {
      words,
      page,
      ...(state && { is_finished: state === 'finished' }),
      ...(since && { since }),
      ...(until && { until }),
    }
  })
  return useKitchenQuery('batches', '/batches', () => ({ query: query.value, key: [wanted.value] }), {
    placeholderData: keepPreviousData,
  })
}
