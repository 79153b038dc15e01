import { useKitchenQuery } from '@/shared/api/useKitchenQuery'

/** What lies where, what to thaw, what runs out. */
export function useLarder() {
  return useKitchenQuery('larder', '/larder')
}
