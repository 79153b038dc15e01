import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced, refThrottled } from '@vueuse/core'
import { computed } from 'vue'
import type { ProblemError } from '@/shared/api/client'
import { ownerKey } from '@/shared/api/owner'

/**
 * Asks the server as one types. Only the answer to the question as it is now counts, in whatever order answers
 * come in; until it is here the one before stays. No question (null) has no answer, nor has a refused one.
 *
 * `wait`: milliseconds without a change before it is asked; with `steady` it is asked that often while it changes.
 */
export function useAsking<Q, A>(
  name: string,
  question: () => Q | null,
  send: (question: Q) => Promise<A>,
  { wait = 200, steady = false } = {},
) {
  const typed = computed(() => {
    const now = question()
    return now === null ? null : JSON.stringify(now)
  })
  const asked = steady ? refThrottled(typed, wait, true) : refDebounced(typed, wait)
  const { data, error, isFetching, refetch } = useQuery<A, ProblemError>({
    queryKey: computed(() => ['asking', ownerKey(), name, asked.value]),
    enabled: computed(() => asked.value !== null),
    queryFn: ({ queryKey }) => send(JSON.parse(String(queryKey[3])) as Q),
    placeholderData: keepPreviousData,
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
  })
  return {
    answer: computed(() => (asked.value === null || error.value ? null : (data.value ?? null))),
    problem: computed(() => (asked.value === null ? null : (error.value?.problem ?? null))),
    isAsking: isFetching,
    again: () => void refetch(),
  }
}
