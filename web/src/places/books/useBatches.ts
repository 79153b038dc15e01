import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, type ProblemError, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'

export type BatchState = '' | 'under-way' | 'finished'
/** What is looked for; days as in an address, "2026-11-26", empty: any. */
export type Wanted = { words: string; state: BatchState; since: string; until: string; page: number }

/** A page of every batch ever made that is wanted, the latest entry first. */
export function useBatches(wanted: Ref<Wanted>) {
  const slug = useSlug()
  return useQuery<Schemas['BatchesOut'], ProblemError>({
    queryKey: computed(() => ['batches', slug.value, wanted.value]),
    placeholderData: keepPreviousData,
    queryFn: () => {
      const { words, state, since, until, page } = wanted.value
      const query = {
        words,
        page,
        ...(state && { is_finished: state === 'finished' }),
        ...(since && { since }),
        ...(until && { until }),
      }
      return take(
        api.GET('/api/kitchens/{kitchen_slug}/batches', {
          params: { path: { kitchen_slug: slug.value }, query },
        }),
      )
    },
  })
}
