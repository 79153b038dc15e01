import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { type Ref } from 'vue'
import { type Schemas } from '@/shared/api/client'

export type Trial = Schemas['CureTrialOut']

/** All trials, the latest first. */
export function useTrials() {
  return useKitchenQuery('trials', '/trials')
}

/** One trial; asked again while a tasting is open, for tasters hand in from other phones. */
export function useTrial(id: Ref<number>) {
  const query = useKitchenQuery('trial', '/trials/{trial_id}', () => ({ path: { trial_id: id.value } }), {
    refetchInterval: (one) => (one.state.data?.tastings.some((tasting) => tasting.is_open) ? 5000 : false),
  })
  const opening = useKitchenWrite<'/trials/{trial_id}/tastings', { id: number }>(
    'tasting',
    '/trials/{trial_id}/tastings',
    { path: () => ({ trial_id: id.value }), body: () => undefined },
  )
  const { put } = query
  return { ...query, opening, put }
}
