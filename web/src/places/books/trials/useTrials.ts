import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { type Ref } from 'vue'
import { api, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useWrite } from '@/shared/writing/useWrite'

export type Trial = Schemas['CureTrialOut']

/** All trials, the latest first. */
export function useTrials() {
  return useKitchenQuery('trials', '/trials')
}

/** One trial; asked again while a tasting is open, for tasters hand in from other phones. */
export function useTrial(id: Ref<number>) {
  const slug = useSlug()
  const query = useKitchenQuery('trial', '/trials/{trial_id}', () => ({ path: { trial_id: id.value } }), {
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
  const { put } = query
  return { ...query, opening, put }
}
