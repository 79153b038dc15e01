import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { useQueryClient } from '@tanstack/vue-query'
import { type Ref } from 'vue'
import { type Batch } from './client'
import { renewShown } from './renewShown'

/** One batch, whole; kept up to date by `put` after a write. */
export function useBatch(code: Ref<string>) {
  const queries = useQueryClient()
  const query = useKitchenQuery('batch', '/batches/{code}', () => ({ path: { code: code.value } }))
  function put(batch: Batch): void {
    query.put(batch)
    renewShown(queries)
  }
  return { ...query, put }
}

/** One batch's verdict, whole. */
export function useVerdict(code: Ref<string>) {
  return useKitchenQuery('verdict', '/batches/{code}/verdict', () => ({ path: { code: code.value } }))
}

/** What is under way, and how many pieces hang where. */
export function useToday() {
  return useKitchenQuery('today', '/today')
}
