import { useQuery } from '@tanstack/vue-query'
import { refDebounced, refThrottled } from '@vueuse/core'
import { computed, shallowRef, watch } from 'vue'
import type { ProblemError } from '@/shared/api/client'
import { ownerKey } from '@/shared/api/owner'

/**
 * Asks the server as one types. Only the answer to the question as it is now counts, in whatever order answers
 * come in; until it is here the one before stays. No question (null) has no answer, nor has a refused one: `last`
 * is what was answered before the refusal, for pages that go on showing it beside the problem. `forget` drops it where what was asked about is done.
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
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
  })
  const last = shallowRef<A | null>(null)
  const isRefused = shallowRef(false)
  watch(
    [asked, data, error],
    ([now, answered, failed]) => {
      if (now === null) last.value = null
      else if (answered !== undefined) last.value = answered
      isRefused.value = now !== null && (failed !== null || (isRefused.value && answered === undefined))
    },
    { immediate: true, flush: 'sync' },
  )
  return {
    answer: computed<A | null>(() => (isRefused.value ? null : last.value)),
    last,
    problem: computed(() => (asked.value === null ? null : (error.value?.problem ?? null))),
    isAsking: isFetching,
    again: () => void refetch(),
    forget: () => (last.value = null),
  }
}
