import { useThrottleFn } from '@vueuse/core'
import { ref, watch, type Ref } from 'vue'
import { api, refusal, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'

type Asked = { code: string; kind: string; mark: string; weight: string }

/** What a weight means, asked of the server a few times a second; null without an answer. */
export function useMeaning(asked: Ref<Asked | null>) {
  const kitchen_slug = useSlug()
  const meaning = ref<Schemas['MeaningOut'] | null>(null)
  let turn = 0
  const ask = useThrottleFn(
    async () => {
      const now = asked.value
      const mine = ++turn
      if (!now) {
        meaning.value = null
        return
      }
      const { code, ...body } = now
      const refused = await refusal(async () => {
        const path = { kitchen_slug: kitchen_slug.value, code }
        const answer = await take(
          api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/on-the-scale', { params: { path }, body }),
        )
        if (mine === turn) meaning.value = answer
      })
      if (refused && mine === turn) meaning.value = null
    },
    220,
    true,
  )
  watch(
    () => JSON.stringify(asked.value),
    () => void ask(),
    { immediate: true },
  )
  return { meaning }
}
