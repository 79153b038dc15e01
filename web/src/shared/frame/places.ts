/** The seven places, in the order of the work. `hangs`: the count of pieces that hang there. */
export const places = [
  { name: 'today', word: 'Today', hangs: 'today' },
  { name: 'buy', word: 'Buy', hangs: '' },
  { name: 'bench', word: 'Bench', hangs: 'bench' },
  { name: 'fire', word: 'Fire', hangs: 'fire' },
  { name: 'slice', word: 'Slice', hangs: 'slice' },
  { name: 'verdict', word: 'Verdict', hangs: '' },
  { name: 'books', word: 'Books', hangs: '' },
] as const

/** Places that are about prices alone: not for those who are not shown any. */
export const moneyPlaces: ReadonlySet<string> = new Set(['buy', 'verdict', 'books'])

/** The kitchen itself is opened beside the seven. */
export type PlaceName = (typeof places)[number]['name'] | 'kitchen'
