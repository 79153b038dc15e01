import { labelOf } from '@/places/fire/pieces'
import type { FireIn } from '@/places/fire/useFires'

export type Chosen = { isIn: boolean; probe: string; where: string; rack: number }
export type Draft = Omit<FireIn, 'pieces' | 'meal_at' | 'begun_at' | 'stages'> & {
  meal_at: string
  begun_at: string
  stages: Required<NonNullable<FireIn['stages']>[number]>[]
}
export const stageWords = {
  dry: 'Dry',
  cold_smoke: 'Cold smoke',
  smoke: 'Smoke',
  cook: 'Cook',
  steam: 'Steam',
  wrap: 'Wrapped',
  hold: 'Hold',
} as const

export const blankFire = (): Draft => ({
  name: '',
  cooker: '',
  meat: 'pork',
  ground: false,
  nitrite_ppm: '',
  wood: '',
  program: '',
  pull_at: '',
  meal_at: '',
  begun_at: '',
  stages: [{ kind: 'cook', air: '', minutes: '', inside: '' }],
})

/** A time typed by this clock. */
const momentOf = (typed: string): string | null => (typed ? new Date(typed).toISOString() : null)

/** The body of what was chosen; each rack is filled from the left, in the order of the pieces. */
export function fireBody(
  draft: Draft,
  pieces: { code: string; mark: string }[],
  chosen: Record<string, Chosen>,
): FireIn {
  const filled: Record<number, number> = {}
  const hanging = pieces.flatMap(({ code, mark }) => {
    const one = chosen[labelOf({ code, mark })]
    if (!one?.isIn) return []
    const slot = (filled[one.rack] = (filled[one.rack] ?? 0) + 1)
    return [{ code, mark, rack: one.rack, slot, probe: one.probe, where: one.probe ? one.where : '' }]
  })
  return {
    ...draft,
    meal_at: momentOf(draft.meal_at),
    begun_at: momentOf(draft.begun_at),
    pieces: hanging,
  }
}
