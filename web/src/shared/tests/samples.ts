import type { Batch, Column, Entry, Standing } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'

/** Made-up answers of the API, for tests of what shows them. */
export const weight = (lb: string, kg: string) => ({ lb, kg })
export const cost = (per_lb: string, per_kg: string) => ({ per_lb, per_kg })

export function column(kind: string, label: string, more: Partial<Column> = {}): Column {
  return {
    kind,
    label,
    first_at: '2026-03-02T09:00:00Z',
    last_at: '2026-03-02T10:00:00Z',
    entries: [1],
    pieces: ['A'],
    weight_in: weight('10.00', '4.536'),
    weight_out: weight('8.00', '3.629'),
    kept_of_step: '80.0',
    kept_of_bought: '80.0',
    spent: '6.00',
    worth_back: '2.50',
    cost: cost('2.94', '6.48'),
    peels: [],
    ...more,
  }
}

export const entry = (sequence: number, more: Partial<Entry> = {}): Entry => ({
  id: 100 + sequence,
  sequence,
  act: 'weigh',
  label: 'Smoked',
  lines: ['A 4 lb'],
  happened_at: '2026-03-02T09:00:00Z',
  recorded_at: '2026-03-02T09:00:00Z',
  by: 'Maren',
  corrects: null,
  reason: '',
  overruled_by: null,
  content: { act: 'weigh', kind: 'smoke', minutes: '', used: [], weights: [{ mark: 'A', weight: '4 lb' }] },
  ...more,
})

export function batch(more: Partial<Batch> = {}): Batch {
  const bought = column('bought', 'Bought', {
    weight_out: weight('10.00', '4.536'),
    kept_of_step: null,
    kept_of_bought: '100.0',
    worth_back: '0.00',
    cost: cost('2.00', '4.41'),
  })
  const trimmed = column('trim', 'Trimmed', {
    peels: [
      { material: 'lean', name: 'lean trim', weight: weight('1.00', '0.454'), gain: false, carried: '2.50' },
      { material: 'loss', name: 'unweighed', weight: weight('1.00', '0.454'), gain: false, carried: null },
    ],
  })
  return {
    code: 'J-01',
    name: 'Test jowl',
    cut: 'jowl',
    started_at: '2026-03-02T09:00:00Z',
    seen: 2,
    is_finished: false,
    place: 'bench',
    labour_rate: null,
    strip: { columns: [bought, trimmed], to_come: [{ kind: 'smoke', label: 'Smoked' }] },
    house: {
      stage: 'trimmed',
      is_sliced: false,
      weight: weight('8.00', '3.629'),
      cost: '23.50',
      unit_cost: cost('2.94', '6.48'),
      kept_of_bought: '80.0',
      slices: null,
      cost_per_slice: null,
      portion: null,
      portion_label: null,
      groups: [
        { group: 'meat', money: '20.00', per_lb: '2.50' },
        { group: 'credit', money: '-2.50', per_lb: '-0.31' },
      ],
    },
    shop: null,
    pieces: [
      {
        mark: 'A',
        label: 'Trimmed',
        weight: weight('5.00', '2.268'),
        cost: null,
        slices: null,
        free_marks: ['A1'],
      },
      {
        mark: 'B',
        label: 'Trimmed',
        weight: weight('3.00', '1.361'),
        cost: null,
        slices: null,
        free_marks: ['B1'],
      },
    ],
    by_products: [],
    warnings: [],
    log: [entry(1)],
    ...more,
  }
}

export const shop = (more: Partial<NonNullable<Batch['shop']>> = {}): NonNullable<Batch['shop']> => ({
  name: 'good shop kind',
  pack: '6.00 for 12 oz',
  unit_cost: cost('8.00', '17.64'),
  cost_per_slice: '0.50',
  portion: '1.50',
  saved_per_lb: '5.06',
  saved_per_kg: '11.16',
  saved_per_portion: '0.55',
  saved_on_batch: '40.50',
  is_cheaper: true,
  ...more,
})

export const standing = (more: Partial<Standing> = {}): Standing => ({
  code: 'J-01',
  name: 'Test jowl',
  cut: 'jowl',
  place: 'bench',
  is_finished: false,
  pieces: ['A', 'B'],
  labels: ['Bought', 'Trimmed'],
  kept: ['100.0', '80.0'],
  stage: 'trimmed',
  last_at: '2026-03-02T09:00:00Z',
  started_at: '2026-03-02T09:00:00Z',
  next: { kind: 'cure', label: 'Cured' },
  weight: weight('8.00', '3.629'),
  cost: cost('2.94', '6.48'),
  shop_name: null,
  saved_per_lb: null,
  ...more,
})

/** Stand in a kitchen that thinks in `unit`. */
export function standIn(unit: 'lb' | 'kg'): void {
  const kitchens = [{ slug: 'test', name: 'Test kitchen', weight_unit: unit, currency: 'USD' }]
  useSession().session.value = { signed_in: true, name: 'Maren', kitchens, demo: null }
}
