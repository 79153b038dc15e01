import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useQueryClient } from '@tanstack/vue-query'
import { useRouter } from 'vue-router'
import { renewShown } from '@/shared/api/renewShown'
import { useSlug } from '@/shared/api/useSlug'
import type { Case } from './useCase'

/** Taking an offer home: it becomes the lot of a new batch, whose bench opens. */
export function useTake(asked: () => Case, offer: string) {
  const router = useRouter()
  const queries = useQueryClient()
  const slug = useSlug()
  const made = useKitchenWrite(`take:${offer}`, '/case/taken')
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
