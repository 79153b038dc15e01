import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useQueryClient } from '@tanstack/vue-query'
import { type Schemas } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'

export type Lying = Schemas['LyingOut']
/** What a level is called, by what the store is. */
export const levelWords = { fridge: 'shelf', smoker: 'rack', chamber: 'rod', freezer: 'drawer' } as const
type Move = { code: string; mark: string; place: Schemas['PlaceIn'] }

/** Laying pieces in places, and keeping the places themselves. */
export function useStores() {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  const laying = useKitchenWrite<'/batches/{code}/pieces/{mark}/facts', Move>(
    'lay',
    '/batches/{code}/pieces/{mark}/facts',
    {
      path: ({ code, mark }) => ({ code, mark }),
      body: ({ place }) => ({ length: '', width: '', thickness: '', skin: '', product: '', place }),
    },
  )
  const saving = useKitchenWrite('store', '/stores')
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
