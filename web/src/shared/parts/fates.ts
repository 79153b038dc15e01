import type { Schemas } from '@/shared/api/client'

export type Fate = Schemas['TakingIn']['fate']

/** Ways out of the larder, as words on buttons, the everyday ones first. */
export const fates: { value: Fate; word: string; done: string; asks: boolean }[] = [
  { value: 'eaten', word: 'Eaten', done: 'eaten', asks: false },
  { value: 'plated', word: 'Plated', done: 'plated', asks: true },
  { value: 'sold', word: 'Sold', done: 'sold', asks: true },
  { value: 'given', word: 'Given away', done: 'given away', asks: false },
  { value: 'used', word: 'Used in a batch', done: 'used', asks: true },
  { value: 'spoiled', word: 'Spoiled', done: 'spoiled', asks: true },
  { value: 'discarded', word: 'Thrown away', done: 'thrown away', asks: true },
]
export const fateWord = (fate: string): string => fates.find((one) => one.value === fate)?.done ?? fate
