import { useQueryClient } from '@tanstack/vue-query'
import { onUnmounted, watch } from 'vue'
import type { Batch } from '@/shared/api/client'
import { renewShown } from '@/shared/api/renewShown'
import { useSession } from '@/shared/api/useSession'
import { isEntry, onArrived, send } from './outbox'

/** Once for the whole application: what has arrived is shown everywhere, and signing in sends what waits. */
export function useArrivals(): void {
  const queries = useQueryClient()
  const { kitchen, signIns } = useSession()
  onUnmounted(
    onArrived((letter) => {
      const batch = ['batch', kitchen.value?.slug, letter.code]
      if (isEntry(letter.body)) {
        // the batch has moved on by this entry: what is written before it is read anew follows on it
        const seen = letter.body.seen + 1
        queries.setQueryData<Batch>(batch, (last) => last && { ...last, seen: Math.max(last.seen, seen) })
        void queries.invalidateQueries({ queryKey: batch })
      }
      renewShown(queries)
    }),
  )
  watch(signIns, () => void send())
  void send()
}
