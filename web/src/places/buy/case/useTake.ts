import { useQueryClient } from '@tanstack/vue-query'
import { useRouter } from 'vue-router'
import { api, type Recorded, type Schemas, take } from '@/shared/api/client'
import { renewShown } from '@/shared/api/renewShown'
import { useSlug } from '@/shared/api/useSlug'
import { useWrite } from '@/shared/writing/useWrite'
import type { Case } from './useCase'

/** Taking an offer home: it becomes the lot of a new batch, whose bench opens. */
export function useTake(asked: () => Case, offer: string) {
  const router = useRouter()
  const queries = useQueryClient()
  const slug = useSlug()
  const made = useWrite<Schemas['TakeIn'], Recorded>(`take:${offer}`, (body, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/case/taken', {
        params: { path: { kitchen_slug: slug.value }, header: { 'Idempotency-Key': key } },
        body,
      }),
    ),
  )
  function takeHome(packs: number, weight: string): void {
    void made.write({ case: asked(), offer, packs, weight, name: '' }, ({ batch }) => {
      queries.setQueryData(['batch', slug.value, batch.code], batch)
      renewShown(queries)
      void router.push({ name: 'log', params: { code: batch.code } })
    })
  }
  return { ...made, takeHome }
}

/** "Take it", "Take 2 packs": what the button of an offer will do. */
export const takeText = (packs: number | null): string =>
  packs === null ? 'Take it' : packs === 1 ? 'Take the pack' : `Take ${packs} packs`
