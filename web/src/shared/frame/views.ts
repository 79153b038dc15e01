/** A view of a place: its route, its word, and what is opened from it. */
export type View = { name: string; word: string; also?: readonly string[] }

/** What stands beside each other in a place, in the order of its tabs. */
type Beside = { label: string; views: readonly View[] }
const beside: readonly Beside[] = [
  {
    label: 'Today',
    views: [
      { name: 'today', word: 'Under way' },
      { name: 'plans', word: 'Plans', also: ['plan', 'plan-new'] },
    ],
  },
  {
    label: 'Buy',
    views: [
      { name: 'buy', word: 'At the case' },
      { name: 'prices', word: 'Price list', also: ['price', 'price-import'] },
      { name: 'ways', word: 'Methods' },
    ],
  },
  {
    label: 'Bench',
    views: [
      { name: 'bench', word: 'Batches' },
      { name: 'map', word: 'Map' },
      { name: 'figures', word: 'Limits and spoons' },
    ],
  },
  {
    label: 'Batch',
    views: [
      { name: 'log', word: 'Log' },
      { name: 'pieces-table', word: 'Pieces', also: ['piece'] },
      { name: 'cure', word: 'Cure desk' },
      { name: 'diary', word: 'Diary' },
      { name: 'strip', word: 'Verdict', also: ['ladder'] },
    ],
  },
  {
    label: 'Fire',
    views: [
      { name: 'fire', word: 'Cookers', also: ['fire-live', 'fire-new'] },
      { name: 'chamber', word: 'Chamber' },
      { name: 'practice', word: 'Practice', also: ['practice-run'] },
    ],
  },
  {
    label: 'Slice',
    views: [
      { name: 'slice', word: 'Larder', also: ['pack', 'board'] },
      { name: 'dishes', word: 'Dishes', also: ['dish'] },
      { name: 'cupboard', word: 'Store cupboard' },
    ],
  },
  {
    label: 'Books',
    views: [
      { name: 'books', word: 'Overview' },
      { name: 'yields', word: 'Yields' },
      { name: 'unusual', word: 'Unusual results' },
      { name: 'trials', word: 'Trials', also: ['trial'] },
      { name: 'money', word: 'Money' },
      { name: 'price-book', word: 'Prices' },
      { name: 'forecasts', word: 'Forecasts' },
      { name: 'batches', word: 'All batches' },
      { name: 'everything', word: 'In and out', also: ['import', 'history'] },
    ],
  },
  {
    label: 'Kitchen',
    views: [
      { name: 'kitchen', word: 'Settings' },
      { name: 'people', word: 'People' },
      { name: 'audit', word: 'Who did what' },
      { name: 'own', word: 'My page' },
    ],
  },
]
/** Those of owners alone, and those about prices alone. */
export const forOwners: ReadonlySet<string> = new Set(['people', 'audit'])
export const aboutMoney: ReadonlySet<string> = new Set(['strip'])

export const isOf = (view: View, route: unknown): boolean =>
  view.name === route || view.also?.includes(String(route)) === true

/** What stands beside a route; undefined: it stands alone. */
export const viewsBeside = (route: unknown): Beside | undefined =>
  beside.find(({ views }) => views.some((view) => isOf(view, route)))
