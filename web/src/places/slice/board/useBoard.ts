import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { useQueryClient } from '@tanstack/vue-query'
import { type Ref } from 'vue'
import { api, type Schemas, take } from '@/shared/api/client'
import { renewShown } from '@/shared/api/renewShown'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'
import { useWrite } from '@/shared/writing/useWrite'

export type Board = Schemas['BoardOut']
export type PackingIn = Schemas['PackingIn']
export type Form = Schemas['PackIn']['form']
export type Product = { mark: string; name: string; form: Form; weight: string; slices: string }
export type DraftPack = { product: number; weight: string; slices: string; store: string }
export type CutOff = { name: string; weight: string; worth: 'nothing' | 'price' | 'as_main'; price: string }
export type Cutting = {
  piece: string
  products: Product[]
  packs: DraftPack[]
  cutOff: CutOff[]
  minutes: string
  bagPrice: string
  millimetres: string
  inPack: string
}

export const forms: { value: Form; word: string }[] = [
  { value: 'slices', word: 'slices' },
  { value: 'dice', word: 'dice' },
  { value: 'lardons', word: 'lardons' },
  { value: 'pulled', word: 'pulled' },
  { value: 'ends', word: 'ends' },
  { value: 'whole', word: 'whole piece' },
]

/** What lies on the board of a batch. */
export function useBoard(code: Ref<string>) {
  return useKitchenQuery('board', '/batches/{code}/board', () => ({ path: { code: code.value } }))
}

/** What is drafted as the body that records it; a piece that is finished already is packed without a slicing. */
export function bodyOf(draft: Cutting, board: Board, isDone: boolean): PackingIn {
  const piece = board.pieces.find((one) => one.mark === draft.piece)
  const isCut = piece !== undefined && !piece.is_finished
  const packs = draft.packs.map((pack) => {
    const product = draft.products[pack.product]
    return {
      piece: isCut ? (product?.mark ?? '') : draft.piece,
      product: product?.name ?? '',
      form: product?.form ?? 'slices',
      weight: pack.weight,
      slices: pack.slices,
      store: pack.store,
    }
  })
  const common = { packs, seen: board.seen, is_done: isDone }
  return isCut ? { ...common, split: splitOf(draft) } : { ...common, split: null }
}

function splitOf(draft: Cutting): Schemas['SplitIn'] {
  const bags = draft.bagPrice && draft.packs.length
  return {
    act: 'split',
    kind: 'slice',
    piece: draft.piece,
    pieces: draft.products.map(({ mark, weight, slices }) => ({ mark, weight, slices })),
    cut_off: draft.cutOff
      .filter((one) => one.weight)
      .map((one) => ({ ...one, mark: '', material: one.name === 'skin' ? 'skin' : 'ends' })),
    minutes: draft.minutes,
    used: bags
      ? [
          {
            what: 'bags',
            group: 'packaging',
            amount: String(draft.packs.length),
            price: `${draft.bagPrice} each`,
            pieces: [],
          },
        ]
      : [],
    overhead: '',
    heat: '',
    inside: '',
    scale: '',
  }
}

/** What it would make, as one cuts; and recording it. */
export function useCutting(code: Ref<string>, body: () => PackingIn | null) {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  const path = () => ({ kitchen_slug: kitchen_slug.value, code: code.value })
  const asking = useAsking('packs', body, (now) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/previews/batches/{code}/packs', {
        params: { path: path() },
        body: now,
      }),
    ),
  )
  const closing = useWrite<PackingIn, Board>(
    'packs',
    (now, key) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/packs', {
          params: { path: path(), header: { 'Idempotency-Key': key } },
          body: now,
        }),
      ),
    body,
  )
  function close(now: PackingIn, done: () => void): void {
    void closing.write(now, (board) => {
      queries.setQueryData(['board', kitchen_slug.value, code.value], board)
      void queries.invalidateQueries({ queryKey: ['batch', kitchen_slug.value, code.value] })
      renewShown(queries)
      done()
    })
  }
  return { preview: asking.last, closing, close }
}

/** What a millimetre does. */
export function useThickness(code: Ref<string>, body: () => Schemas['ThicknessIn'] | null) {
  const kitchen_slug = useSlug()
  return useAsking('thickness', body, (now) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/thickness', {
        params: { path: { kitchen_slug: kitchen_slug.value, code: code.value } },
        body: now,
      }),
    ),
  ).last
}
