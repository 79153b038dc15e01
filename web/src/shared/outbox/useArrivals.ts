import { useQueryClient } from '@tanstack/vue-query'
import { onUnmounted, watch } from 'vue'
import { renewShown } from '@/shared/api/renewShown'
import { useSession } from '@/shared/api/useSession'
import { onArrived, send } from './outbox'

/** Once for the whole application: what has arrived is shown everywhere, and signing in sends what waits. */
export function useArrivals(): void {
  const queries = useQueryClient()
  const { kitchen, signIns } = useSession()
  onUnmounted(
    onArrived((letter, answer) => {
      if (answer.batch) queries.setQueryData(['batch', kitchen.value?.slug, letter.code], answer.batch)
      renewShown(queries)
    }),
  )
  watch(signIns, () => void send())
  void send()
}
