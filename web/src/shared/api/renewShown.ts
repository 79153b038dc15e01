import type { QueryClient } from '@tanstack/vue-query'

/** Where a batch is shown beside its own page; a forecast goes by the latest entry, so it renews itself. */
const SHOWN = [
  'today',
  'batches',
  'verdict',
  'verdicts',
  'yields',
  'pieces',
  'plan',
  'lanes',
  'meals',
  'meal',
  'diary',
  'cures',
  'map',
  'larder',
  'board',
  'pack',
  'dishes',
  'dish',
  'cupboard',
]

/** After a write to a batch: read anew whatever is on the screen and may have changed. */
export function renewShown(queries: QueryClient): void {
  for (const name of SHOWN) void queries.invalidateQueries({ queryKey: [name] })
}
