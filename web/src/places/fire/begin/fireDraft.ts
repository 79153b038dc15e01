import { momentTyped } from '@/shared/quantity/when'
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
  store: '',
  cooker: '',
  meat: 'pork',
  ground: false,
  nitrite_ppm: '',
  wood: '',
  program: '',
  pull_at: '',
  course: '',
  meal_at: '',
  begun_at: '',
  stages: [{ kind: 'cook', air: '', minutes: '', inside: '' }],
})

/** A time typed by this clock. */
const momentOf = (typed: string): string | null => (typed ? momentTyped(typed) : null)

type Named = { code: string; mark: string }
type Place = Named & { level: number; slot: number }

/**
 * The body of what was chosen. A piece that hangs on its rack already stays where it is; the others fill each
 * rack from the left, in their order, around `lying`: what hangs in that smoker by the map.
 */
export function fireBody(
  draft: Draft,
  pieces: Named[],
  chosen: Record<string, Chosen>,
  lying: Place[] = [],
): FireIn {
  const taken = new Set(lying.map((one) => `${one.level} ${one.slot}`))
  function freeSlot(rack: number): number {
    let slot = 1
    while (taken.has(`${rack} ${slot}`)) slot++
    taken.add(`${rack} ${slot}`)
    return slot
  }
  const hanging = pieces.flatMap(({ code, mark }) => {
    const one = chosen[labelOf({ code, mark })]
    if (!one?.isIn) return []
    const there = lying.find((other) => other.code === code && other.mark === mark)
    const slot = there?.level === one.rack ? there.slot : freeSlot(one.rack)
    return [{ code, mark, rack: one.rack, slot, probe: one.probe, where: one.probe ? one.where : '' }]
  })
  return {
    ...draft,
    meal_at: momentOf(draft.meal_at),
    begun_at: momentOf(draft.begun_at),
    pieces: hanging,
  }
}
