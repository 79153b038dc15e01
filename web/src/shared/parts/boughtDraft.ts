import type { Content, Schemas } from '@/shared/api/client'

type Bought = Schemas['BoughtIn']
/** What was bought, being typed; `from_…` where it is a piece of another batch. */
export type BoughtDraft = {
  mark: string
  cut: string
  label_weight: string
  own_weight: string
  price_basis: Bought['price_basis']
  price: string
  extras: { what: string; cost: string }[]
  solution: string
  scale: string
  bought_from: string
  from_batch: string
  from_piece: string
  from_weight: string
}

export const blankBought = (price_basis: Bought['price_basis'] = 'per_lb'): BoughtDraft => ({
  mark: '',
  cut: '',
  label_weight: '',
  own_weight: '',
  price_basis,
  price: '',
  extras: [],
  solution: '',
  scale: '',
  bought_from: '',
  from_batch: '',
  from_piece: '',
  from_weight: '',
})

/** What was bought as it is sent. A piece of another batch costs what it carries there, unless a price is typed. */
export function boughtContent(draft: BoughtDraft): Bought {
  const { from_batch, from_piece, from_weight, ...typed } = draft
  const linked = from_batch !== ''
  return {
    act: 'bought',
    ...typed,
    extras: draft.extras.map((extra) => ({ ...extra })),
    price_basis: linked ? 'pack' : draft.price_basis,
    source: linked ? { batch: from_batch, piece: from_piece, weight: from_weight } : null,
  }
}

/** What was bought as recorded, to be corrected. */
export function boughtOf(content: Content): BoughtDraft {
  if (content.act !== 'bought') return blankBought()
  const { mark, cut, label_weight, own_weight, price_basis, price, solution, scale, bought_from, source } =
    content
  return {
    ...{ mark, cut, label_weight, own_weight, price_basis, price, solution, scale, bought_from },
    extras: content.extras.map((extra) => ({ ...extra })),
    from_batch: source?.batch ?? '',
    from_piece: source?.piece ?? '',
    from_weight: source?.weight ?? '',
  }
}
