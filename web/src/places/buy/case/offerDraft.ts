import type { Schemas } from '@/shared/api/client'
import { capital } from '@/shared/quantity/capital'
import { newKey } from '@/shared/writing/newKey'

export type Offer = Schemas['OfferIn']
/** Kinds of cut one meets at the case, each with the forms that matter for its yield. */
export const cuts = [
  { word: 'Belly', skin: true, bone: false },
  { word: 'Jowl', skin: true, bone: false },
  { word: 'Loin', skin: false, bone: true },
  { word: 'Shoulder', skin: true, bone: true },
  { word: 'Brisket', skin: false, bone: false },
  { word: 'Leg', skin: true, bone: true },
  { word: 'Goose', skin: false, bone: true },
] as const

export const solutions = ['', '8', '10', '12', '15', '20'] as const

export const blankOffer = (basis: Offer['basis']): Offer => ({
  id: newKey().slice(0, 8),
  cut: '',
  skin: '',
  bone: '',
  trimmed: false,
  price: '',
  basis,
  pack_weight: '',
  solution: '',
  enhanced: false,
  is_sure: false,
})

/** What a newcomer finds at the case: four made-up tags, to see what the page does. */
export function exampleOffers(basis: 'per_lb' | 'per_kg'): Offer[] {
  const tags = [
    { cut: 'jowl', skin: 'on', price: { per_lb: '2.85', per_kg: '6.30' } },
    { cut: 'belly', skin: 'on', price: { per_lb: '3.98', per_kg: '8.80' } },
    { cut: 'loin', bone: 'out', solution: '12', price: { per_lb: '2.49', per_kg: '5.50' } },
    { cut: 'shoulder', bone: 'in', price: { per_lb: '1.79', per_kg: '3.95' } },
  ] as const
  return tags.map((tag, at) => ({
    ...blankOffer(basis),
    ...tag,
    id: `example${at + 1}`,
    price: tag.price[basis],
  }))
}

/** A price after one more digit on the pad: "2.8" and 5 are "28.5"; digits come in from the right, as cents. */
export function pushDigit(price: string, digit: string): string {
  const digits = `${price.replace(/\D/g, '')}${digit}`.replace(/^0+/, '').slice(0, 7)
  return asCents(digits)
}

export function dropDigit(price: string): string {
  return asCents(price.replace(/\D/g, '').replace(/^0+/, '').slice(0, -1))
}

function asCents(digits: string): string {
  if (!digits) return ''
  const padded = digits.padStart(3, '0')
  return `${padded.slice(0, -2)}.${padded.slice(-2)}`
}

/** "Jowl, skin on": the cut with its form, as it stands on the tag. */
export function titleText(offer: Offer): string {
  const low = offer.cut.toLowerCase()
  const skin = offer.skin && !low.includes('skin') ? { on: 'skin on', off: 'skinless' }[offer.skin] : ''
  const bone = offer.bone && !low.includes('bone') ? { in: 'bone in', out: 'boneless' }[offer.bone] : ''
  const words = [offer.cut, skin, bone].filter(Boolean).join(', ')
  return capital(words)
}

/** What else the tag says, in few words: "trimmed, 12 lb pack". */
export function formText(offer: Offer): string {
  return [
    offer.trimmed ? 'trimmed' : '',
    offer.pack_weight ? `${offer.pack_weight.replace(/\.00 /, ' ')} pack` : 'by weight',
    offer.enhanced && !offer.solution ? 'enhanced' : '',
  ]
    .filter(Boolean)
    .join(', ')
}
