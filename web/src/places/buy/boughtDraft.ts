import type { Content, Schemas } from '@/shared/api/client'

type Bought = Schemas['BoughtIn']
/** What was bought, being typed. */
export type BoughtDraft = {
  cut: string
  label_weight: string
  own_weight: string
  price_basis: Bought['price_basis']
  price: string
}

export const blankBought = (): BoughtDraft => ({
  cut: '',
  label_weight: '',
  own_weight: '',
  price_basis: 'per_lb',
  price: '',
})

/** What was bought as recorded, to be corrected. */
export function boughtOf(content: Content): BoughtDraft {
  if (content.act !== 'bought') return blankBought()
  const { cut, label_weight = '', own_weight = '', price_basis, price } = content
  return { cut, label_weight, own_weight, price_basis, price }
}
