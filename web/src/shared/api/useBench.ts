import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { computed, type Ref } from 'vue'

/** The living pieces of a batch, with size, skin and place. */
export function usePieces(code: Ref<string>) {
  return useKitchenQuery('pieces', '/batches/{code}/pieces', () => ({ path: { code: code.value } }))
}

/** What is to be done within `days`; of one batch where its code is given. */
export function usePlan(days: number, code: Ref<string>) {
  return useKitchenQuery(
    'plan',
    '/plan',
    () => ({ query: { days, code: code.value }, key: [code.value, days] }),
    { refetchInterval: 60_000 },
  )
}

/** Who lies where until when, along two weeks. */
export function useLanes() {
  return useKitchenQuery('lanes', '/lanes', () => ({}), { refetchInterval: 60_000 })
}

/** Every cure of a batch. */
export function useCures(code: Ref<string>) {
  return useKitchenQuery('cures', '/batches/{code}/cures', () => ({ path: { code: code.value } }))
}

/** The latest fire of each piece of a batch, with its share of fuel and work. */
export function usePieceFires(code: Ref<string>) {
  const { data } = useKitchenQuery('fires', '/batches/{code}/fires', () => ({
    path: { code: code.value },
    key: ['of', code.value],
  }))
  return { data: computed(() => data.value?.pieces) }
}

/** What was cut off before, and what it was worth. */
export function useOffcuts() {
  return useKitchenQuery('offcuts', '/offcuts')
}

/** Which piece lies where. */
export function useMap() {
  return useKitchenQuery('map', '/map')
}
