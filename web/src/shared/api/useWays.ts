import { useKitchenQuery } from '@/shared/api/useKitchenQuery'

/** The kitchen's methods: steps, what each uses, minutes, days. */
export function useWays() {
  return useKitchenQuery('ways', '/ways')
}
