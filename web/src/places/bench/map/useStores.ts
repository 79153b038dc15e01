import { useQueryClient } from '@tanstack/vue-query'
import { api, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useWrite } from '@/shared/writing/useWrite'

export type Lying = Schemas['LyingOut']
/** What a level is called, by what the store is. */
export const levelWords = { fridge: 'shelf', smoker: 'rack', chamber: 'rod', freezer: 'drawer' } as const
type Move = { code: string; mark: string; place: Schemas['PlaceIn'] }

/** Laying pieces in places, and keeping the places themselves. */
export function useStores() {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  const laying = useWrite<Move, Schemas['PiecesOut']>('lay', ({ code, mark, place }, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/pieces/{mark}/facts', {
        params: {
          path: { kitchen_slug: kitchen_slug.value, code, mark },
          header: { 'Idempotency-Key': key },
        },
        body: { length: '', width: '', thickness: '', skin: '', product: '', place },
      }),
    ),
  )
  const saving = useWrite<Schemas['StoreIn'], Schemas['MapOut']>('store', (body, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/stores', {
        params: { path: { kitchen_slug: kitchen_slug.value }, header: { 'Idempotency-Key': key } },
        body,
      }),
    ),
  )
  function lay(piece: Lying, place: Schemas['PlaceIn'], done: () => void): void {
    void laying.write({ code: piece.code, mark: piece.mark, place }, () => {
      for (const name of ['map', 'pieces', 'plan', 'diary'])
        void queries.invalidateQueries({ queryKey: [name] })
      done()
    })
  }
  function save(store: Schemas['StoreIn'], done: () => void): void {
    void saving.write(store, (map) => {
      queries.setQueryData(['map', kitchen_slug.value], map)
      done()
    })
  }
  return { lay, save, layProblem: laying.problem, saveProblem: saving.problem }
}
