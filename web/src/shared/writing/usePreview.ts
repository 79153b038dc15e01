import { useDebounceFn } from '@vueuse/core'
import { ref, watch, type WatchSource } from 'vue'
import { type Preview, refusal } from '@/shared/api/client'

/** Faults of a form that is merely not filled in yet; told only once it is sent. */
const unfinished = new Set(['missing', 'empty', 'no_main', 'one_of'])

/** Asks, as one types, what the entry would do. The latest answer counts; a silent server is not an error. */
export function usePreview<B>(body: WatchSource<B>, ask: (body: B) => Promise<Preview>) {
  const preview = ref<Preview | null>(null)
  let turn = 0
  const look = useDebounceFn(async (now: B) => {
    const mine = ++turn
    const refused = await refusal(async () => {
      const answer = await ask(now)
      if (mine === turn) {
        preview.value = {
          ...answer,
          problems: (answer.problems ?? []).filter((problem) => !unfinished.has(problem.code)),
        }
      }
    })
    if (refused && mine === turn) preview.value = null
  }, 200)
  watch(body, (now) => void look(now), { deep: true, immediate: true })
  return { preview }
}
