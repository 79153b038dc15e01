import type { Content } from '@/shared/api/client'
import { type UsedDraft, usedContent, usedOf } from './usedDraft'

/** Pieces coming together or thrown away, being typed. */
export type TogetherDraft = UsedDraft & {
  kind: string
  marks: string[]
  mark: string
  weight: string
  slices: string
  charge: 'batch' | 'loss'
  why: string
}

export const blankTogether = (act: 'merge' | 'discard'): TogetherDraft => ({
  kind: act === 'merge' ? 'mix' : 'discard',
  marks: [],
  mark: '',
  weight: '',
  slices: '',
  charge: 'batch',
  why: '',
  used: [],
  minutes: '',
  overhead: '',
  scale: '',
})

export function togetherContent(act: 'merge' | 'discard', draft: TogetherDraft): Content {
  const { kind, marks, mark, weight, slices, charge, why } = draft
  const common = { kind, pieces: [...marks], ...usedContent(draft) }
  return act === 'merge'
    ? { act, ...common, into: { mark, weight, slices } }
    : { act, ...common, charge, why }
}

export function togetherOf(content: Content): TogetherDraft {
  if (content.act === 'merge') {
    const { kind, pieces, into } = content
    return { ...blankTogether('merge'), kind, marks: [...pieces], ...into, ...usedOf(content) }
  }
  if (content.act !== 'discard') return blankTogether('merge')
  const { kind, pieces, charge, why } = content
  return { ...blankTogether('discard'), kind, marks: [...pieces], charge, why, ...usedOf(content) }
}
