import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import type { Preview } from '@/shared/api/client'
import { useAsking } from '@/shared/asking/useAsking'

/** Faults of a form that is merely not filled in yet; shown only once it is sent. */
const unfinished = new Set(['missing', 'empty', 'no_main', 'one_of'])

/** What the entry typed would do; a silent server is not an error. */
export function usePreview<B>(name: string, body: MaybeRefOrGetter<B>, ask: (body: B) => Promise<Preview>) {
  const { answer, forget } = useAsking(`preview of ${name}`, () => toValue(body), ask)
  const preview = computed(
    () =>
      answer.value && {
        ...answer.value,
        problems: (answer.value.problems ?? []).filter((problem) => !unfinished.has(problem.code)),
      },
  )
  return { preview, forget }
}
