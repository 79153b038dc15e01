import type { Ref } from 'vue'
import { api, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'

/** `seen`: how far the batch has come; what a weight means is asked anew when that changes. */
type Asked = { code: string; seen: number } & Schemas['OnScaleIn']

/** What a weight means, asked of the server a few times a second; null without an answer. */
export function useMeaning(asked: Ref<Asked | null>) {
  const kitchen_slug = useSlug()
  const { answer: meaning } = useAsking(
    'on the scale',
    () => asked.value,
    ({ code, kind, mark, weight, heat }) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/on-the-scale', {
          params: { path: { kitchen_slug: kitchen_slug.value, code } },
          body: { kind, mark, weight, heat },
        }),
      ),
    { wait: 220, steady: true },
  )
  return { meaning }
}
