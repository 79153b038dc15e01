import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, type ProblemError, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'
import { useWrite } from '@/shared/writing/useWrite'

export type Trial = Schemas['CureTrialOut']

/** All trials, the latest first. */
export function useTrials() {
  const slug = useSlug()
  return useQuery<Schemas['TrialsOut'], ProblemError>({
    queryKey: computed(() => ['trials', slug.value]),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/trials', { params: { path: { kitchen_slug: slug.value } } }),
      ),
  })
}

/** One trial; asked again while a tasting is open, for tasters hand in from other phones. */
export function useTrial(id: Ref<number>) {
  const slug = useSlug()
  const queries = useQueryClient()
  const queryKey = computed(() => ['trial', slug.value, id.value])
  const query = useQuery<Trial, ProblemError>({
    queryKey,
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/trials/{trial_id}', {
          params: { path: { kitchen_slug: slug.value, trial_id: id.value } },
        }),
      ),
    refetchInterval: (one) => (one.state.data?.tastings.some((tasting) => tasting.is_open) ? 5000 : false),
  })
  const opening = useWrite<{ id: number }, Trial>('tasting', (_body, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/trials/{trial_id}/tastings', {
        params: {
          path: { kitchen_slug: slug.value, trial_id: id.value },
          header: { 'Idempotency-Key': key },
        },
      }),
    ),
  )
  const put = (trial: Trial): void => void queries.setQueryData(queryKey.value, trial)
  return { ...query, opening, put }
}
