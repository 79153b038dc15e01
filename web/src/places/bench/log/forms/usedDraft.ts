import type { Schemas } from '@/shared/api/client'

type Used = Schemas['UsedIn']
export type UsedRow = { what: string; group: string; amount: string; price: string; pieces: string[] }
/** What every step may carry, being typed. */
export type UsedDraft = { used: UsedRow[]; minutes: string; overhead: string; scale: string }
type Carried = { used: Used[]; minutes: string; overhead: string; scale: string }

export const usedContent = ({ used, minutes, overhead, scale }: UsedDraft): Carried => ({
  used: used.map((row) => ({ ...row, pieces: [...row.pieces] })),
  minutes,
  overhead,
  scale,
})

/** What a recorded step carried, to be corrected. */
export const usedOf = ({ used, minutes, overhead, scale }: Carried): UsedDraft => ({
  used: used.map((row) => ({ ...row, pieces: [...row.pieces] })),
  minutes,
  overhead,
  scale,
})

/** The group that what is used in a step mostly belongs to. */
export function usualGroup(kind: string): string {
  return kind === 'cure' ? 'cure' : kind === 'smoke' ? 'fuel' : kind === 'slice' ? 'packaging' : 'other'
}
