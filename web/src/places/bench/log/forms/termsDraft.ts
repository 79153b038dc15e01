import type { Content } from '@/shared/api/client'

type Way = 'slices' | 'weight' | 'cooked_weight'
/** A portion, a shop's pack or a frying, being typed. */
export type TermsDraft = {
  way: Way
  name: string
  paid: string
  weight: string
  slices: string
  fry: string
  /** A frying entered by both weights. */
  raw: string
  cooked: string
}

const words = { name: '', paid: '', weight: '', slices: '', fry: '', raw: '', cooked: '' }
const empty: TermsDraft = { way: 'slices', ...words }

/** A recorded one, to be corrected; else an empty one. */
export function termsOf(shown: Content | undefined): TermsDraft {
  switch (shown?.act) {
    case 'shop_pack': {
      const { name, paid, weight, slices, fry } = shown
      return { ...empty, name, paid, weight, slices, fry }
    }
    case 'fry':
      return { ...empty, fry: shown.kept, raw: shown.raw, cooked: shown.cooked }
    case 'portion': {
      const way = shown.weight ? 'weight' : shown.cooked_weight ? 'cooked_weight' : 'slices'
      return { ...empty, way, weight: shown.weight || shown.cooked_weight, slices: shown.slices }
    }
    default:
      return { ...empty }
  }
}

export function termsContent(act: 'portion' | 'shop_pack' | 'fry', draft: TermsDraft): Content {
  const { way, name, paid, weight, slices, fry } = draft
  if (act === 'shop_pack') return { act, name, paid, weight, slices, fry }
  if (act === 'fry') return { act, kept: fry, raw: draft.raw, cooked: draft.cooked }
  const portion = { act, slices: '', weight: '', cooked_weight: '' }
  return { ...portion, [way]: way === 'slices' ? slices : weight }
}
