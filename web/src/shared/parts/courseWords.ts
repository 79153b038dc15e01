import type { Schemas } from '@/shared/api/client'

export type Course = NonNullable<Schemas['PieceFactsOut']['course']>

/** What a piece may become, in the cook's words. */
export const courses: { value: Course; word: string }[] = [
  { value: 'cooked', word: 'Cooked' },
  { value: 'pulled', word: 'Pulled' },
  { value: 'steamed', word: 'Steamed' },
  { value: 'cold_smoked_raw', word: 'Cold-smoked, raw' },
  { value: 'cured_raw', word: 'Cured, raw' },
  { value: 'air_dried', word: 'Air-dried' },
  { value: 'fermented_dried', word: 'Fermented and dried' },
]

/** A course in words, within a sentence. */
export const courseWord = (course: Course): string =>
  (courses.find((one) => one.value === course)?.word ?? course).toLowerCase()
