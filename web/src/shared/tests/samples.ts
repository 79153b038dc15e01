import type {
  Batch,
  Column,
  Entry,
  Forecast,
  Judged,
  Schemas,
  Settings,
  Shop,
  Summary,
  Verdict,
} from '@/shared/api/client'
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
    came_together: false,
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
  content: {
    act: 'weigh',
    kind: 'smoke',
    minutes: '',
    overhead: '',
    heat: '',
    inside: '',
    scale: '',
    used: [],
    weights: [{ mark: 'A', weight: '4 lb' }],
  },
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
      {
        material: 'loss',
        name: 'lost, not weighed',
        weight: weight('1.00', '0.454'),
        gain: false,
        carried: null,
      },
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
    strip: { columns: [bought, trimmed], to_come: [{ kind: 'smoke', label: 'Smoked' }] },
    house: {
      stage: 'trimmed',
      is_sliced: false,
      is_finished: false,
      weight: weight('8.00', '3.629'),
      cost: '23.50',
      unit_cost: cost('2.94', '6.48'),
      kept_of_bought: '80.0',
      slices: null,
      cost_per_slice: null,
      cost_per_cooked: null,
      fry_kept: null,
      fry_spread: null,
      fry_tests: 0,
      portion: null,
      portion_label: null,
      groups: [
        { group: 'meat', money: '20.00', per_lb: '2.50' },
        { group: 'credit', money: '-2.50', per_lb: '-0.31' },
      ],
    },
    shops: [],
    loss_account: '0.00',
    sources: [],
    policy: {
      act: 'policy',
      labour_rate: '',
      by_products: true,
      fuel: true,
      packaging: true,
      overhead: true,
    },
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

export const shop = (more: Partial<Shop> = {}): Shop => ({
  entry: 7,
  name: 'good shop bacon',
  pack: '6.00 for 12 oz',
  unit_cost: cost('8.00', '17.64'),
  cost_per_slice: '0.50',
  portion: '1.50',
  saved_per_lb: '5.06',
  saved_per_kg: '11.16',
  saved_per_portion: '0.55',
  saved_on_batch: '40.50',
  is_cheaper: true,
  cost_per_cooked: null,
  break_even: cost('3.50', '7.72'),
  earned_per_hour: '21.40',
  ...more,
})

/** House at 3.42 a pound beside a shop's 6.00, 15.50 saved. */
export function judged(more: Partial<Judged> = {}): Judged {
  const rung = { name: 'good shop bacon', price: '6.00', saved: '2.58', apart: true }
  const basis = { low: null, high: null, shops: [{ ...rung, price: null, saved: null, apart: false }] }
  return {
    house: { ...batch().house, stage: 'sliced', is_sliced: true, unit_cost: cost('3.42', '7.53') },
    shops: [shop({ unit_cost: cost('6.00', '13.23'), saved_on_batch: '15.50' })],
    is_forecast: false,
    expected: null,
    spread: {
      is_known: true,
      unit_cost: cost('0.02', '0.04'),
      portion: null,
      kept: '0.1',
      saved_on_batch: [],
    },
    bases: [
      {
        key: 'pound',
        label: 'a pound, sliced',
        price: '3.42',
        low: '3.38',
        high: '3.46',
        shops: [rung],
        missing: null,
      },
      { ...basis, key: 'slice', label: 'a slice', price: null, missing: 'Count the slices of every piece.' },
    ],
    bill: {
      parts: [
        {
          sort: 'meat',
          name: 'meat',
          label: 'meat as bought',
          per_lb: '2.00',
          per_kg: '4.41',
          per_portion: null,
          on_batch: '12.00',
          entries: [],
        },
        {
          sort: 'shrink',
          name: 'trim',
          label: 'lost to the trim',
          per_lb: '1.42',
          per_kg: '3.13',
          per_portion: null,
          on_batch: '8.50',
          entries: [],
        },
      ],
      per_lb: '3.42',
      per_kg: '7.54',
      per_portion: null,
      on_batch: '20.50',
    },
    year: { batches: 24, compared: [24], saved: ['372.00'] },
    size: {
      slabs: 2,
      wall: 3,
      wall_is: 'the smoker',
      points: [1, 2, 3].map((slabs) => ({ slabs, unit_cost: cost(`${5 - slabs}.00`, '8.82') })),
      crossings: [2],
      work: '30 minutes a batch and 12 a slab, by your own 4 finished batches',
    },
    ...more,
  }
}

export const verdict = (more: Partial<Verdict> = {}): Verdict => ({
  code: 'J-01',
  name: 'Test jowl',
  cut: 'jowl',
  is_finished: true,
  judged: judged(),
  dials: {
    tag_per_lb: '2.00',
    tag_per_kg: '4.41',
    yields: [{ kind: 'smoke', label: 'Smoked', kept: '86.0' }],
    minutes: '60',
    portion_slices: '3',
    portion_weight: '',
    portion_cooked_weight: '',
    shops: ['6.00'],
  },
  levers: [
    { label: 'keep a tenth less when smoked', change_per_lb: '0.38', change_per_kg: '0.84' },
    { label: 'pay a tenth more for the meat', change_per_lb: '0.33', change_per_kg: '0.73' },
  ],
  outlay: [{ what: 'curing salt', packs: 1, paid: '5.00', charged: '0.52' }],
  outlay_paid: '25.00',
  outlay_charged: '20.52',
  derivations: [
    {
      figure: 'saved_on_batch',
      shop: 0,
      title: 'Saved on the batch',
      formula: "(shop's pound − house's pound) × weight of what is left",
      value: '$15.50',
      inputs: [{ label: 'what is left', value: '6.00 lb, 2.722 kg', entries: [101] }],
    },
  ],
  policy: batch().policy,
  policy_words: 'work not counted, trim credited, fuel, packaging and overhead counted',
  policy_is_own: false,
  kitchen_policy: batch().policy,
  sources: [],
  takers: [],
  loss_account: '0.00',
  warnings: [],
  cautions: [],
  seen: 4,
  hourly: '18.00',
  ...more,
})

export const summary = (more: Partial<Summary> = {}): Summary => ({
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

export const settings: Settings = {
  labour_rate: '18.00',
  by_products: true,
  fuel: true,
  packaging: true,
  overhead: true,
  scale: '5 g',
  fridge_slabs: 6,
  smoker_slabs: null,
  helpers_see_money: true,
}

/** A kitchen as the session tells of it, to its owner. */
export const kitchenInfo = (more: Partial<Schemas['KitchenInfo']> = {}): Schemas['KitchenInfo'] => ({
  slug: 'test',
  name: 'Test kitchen',
  weight_unit: 'lb',
  temperature_unit: more.weight_unit === 'kg' ? 'C' : 'F',
  decimal_sign: '.',
  time_zone: '',
  country: '',
  currency: 'USD',
  role: 'owner',
  sees_money: true,
  ...more,
})
/** A session, signed in as Maren unless said otherwise. */
export const sessionOf = (more: Partial<Schemas['Session']> = {}): Schemas['Session'] => ({
  signed_in: true,
  name: 'Maren',
  username: 'maren',
  kitchens: [kitchenInfo()],
  demo: null,
  may_start: false,
  tablet: null,
  disk_low: null,
  mail: false,
  ...more,
})

/** Stand in a kitchen that thinks in `unit`. */
export function standIn(unit: 'lb' | 'kg', currency = 'USD'): void {
  useSession().session.value = sessionOf({ kitchens: [kitchenInfo({ weight_unit: unit, currency })] })
}

export const range = (low: string, middle: string, high: string): Schemas['RangeOut'] => ({
  low: cost(low, low),
  middle: cost(middle, middle),
  high: cost(high, high),
})

/** A forecast of one step to come. */
export function forecast(more: Partial<Forecast> = {}): Forecast {
  const step = {
    kind: 'smoke',
    label: 'Smoked',
    kept: '88.0',
    kept_of_bought: '70.4',
    basis: '0.88 ± 0.03: your last 4 hot smokes of this cut',
    weight: {
      low: weight('6.80', '3.084'),
      middle: weight('7.04', '3.193'),
      high: weight('7.28', '3.302'),
    },
    price: range('3.40', '3.60', '3.80'),
    spent: '2.00',
    worth_back: '0.00',
  }
  return {
    way: 'Dry cure',
    way_version: 1,
    steps: [step],
    price: step.price,
    weight: step.weight,
    shop_name: 'good shop bacon',
    chance: 93,
    notes: [],
    course: null,
    course_label: '',
    courses: [],
    groups: [],
    seen: 3,
    ...more,
  }
}

/** An offer as checked. */
export function checkedOffer(more: Partial<Schemas['CaseOfferOut']> = {}): Schemas['CaseOfferOut'] {
  return {
    id: 'a',
    cut: 'jowl',
    tag: cost('2.85', '6.28'),
    meat: null,
    sliced: range('6.90', '7.35', '7.81'),
    portion: { low: '1.24', middle: '1.32', high: '1.41' },
    cooked: { low: '0.92', middle: '1.09', high: '1.29' },
    worth_up_to: cost('3.37', '7.43'),
    worth_pack: '40.44',
    chance: 93,
    verdict: 'buy',
    hour: '24.53',
    amount: null,
    pack: weight('12.00', '5.443'),
    packs_wanted: 2,
    doubts: [],
    warning: '',
    steps: [
      { label: 'Trimmed', basis: '0.85 ± 0.04: start value, 0 batches', price: range('3', '3.52', '4') },
    ],
    question: null,
    question_is: null,
    ...more,
  }
}
