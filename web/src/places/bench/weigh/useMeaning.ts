import type { Ref } from 'vue'
import { api, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'
import { useAsking } from '@/shared/asking/useAsking'

/** `seen`: how far the batch has come; what a weight means is asked anew when that changes. */
type Asked = { code: string; seen: number; kind: string; mark: string; weight: string }

/** What a weight means, asked of the server a few times a second; null without an answer. */
export function useMeaning(asked: Ref<Asked | null>) {
  const kitchen_slug = useSlug()
  const { answer: meaning } = useAsking(
    'on the scale',
    () => asked.value,
    ({ code, kind, mark, weight }) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/on-the-scale', {
          params: { path: { kitchen_slug: kitchen_slug.value, code } },
          body: { kind, mark, weight },
        }),
      ),
    { wait: 220, steady: true },
  )
  return { meaning }
}
