import type { Task, Cures, PieceFacts, Pieces, Schemas } from '@/shared/api/client'
import { weight } from './samples'

/** Made-up answers of the bench: pieces, places, what is due, and the cure desk. */
export const piece = (mark: string, more: Partial<PieceFacts> = {}): PieceFacts => ({
  mark,
  label: 'Trimmed',
  weight: weight('4.41', '2.000'),
  course: null,
  course_label: '',
  is_raw: false,
  smoke: 'hot',
  kinds: ['trim'],
  product: 'bacon',
  is_product_set: false,
  length: null,
  width: null,
  thickness: null,
  skin: '',
  place: null,
  ...more,
})

export const pieces = (marks: string[], more: Partial<Pieces> = {}): Pieces => ({
  code: 'J-01',
  name: 'Test belly',
  cut: 'belly',
  pieces: marks.map((mark) => piece(mark)),
  looked_over_at: null,
  ...more,
})

export const task = (more: Partial<Task> = {}): Task => ({
  uid: 'u-1',
  kind: 'turn',
  words: 'Turn and rub',
  code: 'J-01',
  name: 'Test belly',
  marks: ['A', 'B'],
  due_at: '2026-03-03T08:00:00Z',
  until_at: '2026-03-03T20:00:00Z',
  minutes: null,
  state: 'open',
  done_at: null,
  by: null,
  is_late: false,
  count: 3,
  of: 8,
  where: 'Fridge 1: shelf 2',
  text: '',
  taste: '',
  ...more,
})

export const lying = (mark: string, level = 0, slot = 0): Schemas['LyingOut'] => ({
  code: 'J-01',
  name: 'Test belly',
  mark,
  label: 'Trimmed',
  weight: weight('4.41', '2.000'),
  course: null,
  level,
  slot,
})

export const store = (more: Partial<Schemas['StoreOut']> = {}): Schemas['StoreOut'] => ({
  name: 'Fridge 1',
  sort: 'fridge',
  levels: 2,
  slots: 2,
  lying: [lying('A', 1, 2)],
  ...more,
})

export const gauge = (more: Partial<Schemas['GaugeOut']> = {}): Schemas['GaugeOut'] => ({
  ppm: '150.0',
  low: '145',
  high: '156',
  pick_up: null,
  one_system: null,
  limit: '200',
  limit_name: 'bacon, dry rub',
  source: 'US table',
  reference: null,
  is_over: false,
  own: '150.0',
  carried_ppm: null,
  is_at_rule: false,
  error: 'half a step of the scale',
  ...more,
})

export const curingTime = (more: Partial<Schemas['TimeOut']> = {}): Schemas['TimeOut'] => ({
  rules: ['A week an inch: 10 days'],
  first: 7,
  last: 12,
  out: 9,
  planned: 9,
  state: 'inside',
  said: 'Inside the window.',
  center: '72',
  asks_thickness: false,
  curve: [0, 3, 6, 9, 12].map((days) => ({
    days: `${days}`,
    middle: `${days * 8}`,
    low: `${days * 7}`,
    high: `${Math.min(100, days * 9)}`,
  })),
  curve_source: 'Diffusion in a slab.',
  ...more,
})

const line = (
  name: string,
  role: Schemas['LineOut']['role'],
  grams: string,
  more: Partial<Schemas['LineOut']> = {},
): Schemas['LineOut'] => ({
  name,
  role,
  stage: 1,
  grams,
  share: '2.5',
  text: '2.5 %',
  spoons: null,
  spoons_grams: null,
  is_spooned: false,
  own_grams: null,
  spoons_from: null,
  spoons_to: null,
  cost: null,
  ...more,
})

export const deskPiece = (
  mark: string,
  more: Partial<Schemas['DeskPieceOut']> = {},
): Schemas['DeskPieceOut'] => ({
  mark,
  weight: weight('4.41', '2.000'),
  grams: '2000',
  thickness: null,
  skin: '',
  school: 'Measured dry cure',
  how: 'Rub it in, bag it.',
  course: null,
  product: 'bacon',
  lines: [
    line('coarse salt', 'salt', '50.0', {
      spoons: '3 tbsp',
      spoons_grams: '49.5',
      spoons_from: '45',
      spoons_to: '55',
    }),
    line('curing salt no. 1', 'agent', '4.80'),
  ],
  gauge: gauge(),
  brine: null,
  time: curingTime(),
  salt_in_slice: '2.9 to 3.1 %, from 2.5 % in',
  cautions: [],
  questions: [],
  cost: '0.31',
  stage_note: '',
  tub: '',
  tub_weight: null,
  is_kept_warm: false,
  ...more,
})

export const brine = (more: Partial<Schemas['BrineOut']> = {}): Schemas['BrineOut'] => ({
  weight: weight('4.85', '2.200'),
  grams: '2200',
  injector_grams: '0',
  tub_grams: '2200',
  spare_grams: '0',
  strength: '5.2',
  hot_grams: '500',
  cold_grams: '1500',
  mixed_f: '83',
  mixed_c: '28',
  may_go_in: false,
  ice_grams: null,
  water_note: 'Too warm for meat: into the fridge until it is under 40 °F.',
  ...more,
})

const recipeIn = (school: Schemas['RecipeIn']['school']): Schemas['RecipeIn'] => ({
  name: '',
  school,
  salt: { name: 'coarse salt', amount: '2.5 %', spoon: 'dense_flake', stage: 1 },
  sugar: { name: 'brown sugar', amount: '1 %', spoon: 'brown_sugar', stage: 1 },
  agent: 'no_1',
  agent_nitrite: '',
  agent_nitrate: '',
  target: '',
  agent_amount: '',
  extras: [],
  water: '',
  pump: '',
  pick_up: '',
  spare: '',
  box: '',
  uptake: '',
  hot_part: '',
  hot_water: '',
  cold_water: '',
  mixed_water: '',
  mixed_salt: '',
  mixed_sugar: '',
  mixed_agent: '',
})
type SchoolRow = [
  Schemas['RecipeIn']['school'],
  string,
  Schemas['SchoolOut']['shows'],
  /** Its usual nitrite: in ppm, else an amount. */
  string,
  Partial<Schemas['RecipeIn']>?,
]
const schoolFacts: Schemas['SchoolOut'][] = (
  [
    ['measured', 'Measured dry cure', ['agent'], '150'],
    ['spoon', 'Rub by spoon', ['agent', 'spoons'], '1 tsp for 5 lb'],
    ['salt_box', 'Salt box', ['agent', 'box'], '150', { box: '100 %' }],
    ['brine', 'Brine', ['agent', 'tub', 'brine', 'water', 'pick_up', 'stages'], '110', { water: '100 %' }],
    ['injection', 'Injection', ['agent', 'brine', 'pump', 'spare'], '110', { pump: '10 %' }],
    [
      'inject_cover',
      'Inject and cover',
      ['agent', 'tub', 'brine', 'water', 'pump', 'stages'],
      '110',
      { pump: '10 %', water: '80 %' },
    ],
    ['ready_mixed', 'Ready-mixed', ['agent', 'packet'], '25 g for 1 kg', { agent: 'complete' }],
    ['two_stage', 'Two-stage', ['agent', 'stages', 'spices_later'], '150'],
    ['sausage', 'Sausage', ['agent'], '0.25 %'],
    ['plain', 'Without nitrite', [], '', { agent: 'none' }],
  ] as SchoolRow[]
).map(([key, label, shows, dose, more]) => {
  const isTarget = /^[0-9]+$/.test(dose)
  const said = { target: isTarget ? dose : '', agent_amount: isTarget ? '' : dose }
  const own = more?.agent
  return {
    key,
    label,
    method: 'dry',
    how: '',
    turn_days: 1,
    course: key === 'two_stage' ? 'air_dried' : null,
    shows,
    begins: { ...recipeIn(key), ...more },
    doses: (
      [
        { courses: [null, 'cooked'], agent: own ?? 'no_1' },
        { courses: ['air_dried'], agent: own ?? 'no_2' },
      ] as const
    ).map(({ courses, agent }) => ({ product: 'bacon', skin: 'off', courses: [...courses], agent, ...said })),
  }
})

export const facts = (more: Partial<Schemas['DeskFactsOut']> = {}): Schemas['DeskFactsOut'] => ({
  schools: schoolFacts,
  agents: (
    [
      ['no_1', 'curing salt no. 1', '6.25'],
      ['no_2', 'curing salt no. 2', '6.25'],
      ['weak', 'nitrited salt', '0.6'],
      ['complete', 'complete cure', null],
      ['packet', 'by its packet', null],
    ] as const
  ).map(([key, label, nitrite]) => ({
    key,
    label,
    nitrite,
    nitrate: '0',
    purpose: 'what is cooked',
    is_ready_mixed: nitrite === null,
  })),
  spoons: [
    {
      key: 'dense_flake',
      label: 'dense flake salt',
      grams: '5.5',
      reference: '5.5',
      source: 'common practice',
      is_own: false,
    },
  ],
  limits: [
    {
      key: 'bacon_dry',
      label: 'bacon, dry rub',
      ppm: '200',
      reference: '200',
      source: 'US table',
      reference_source: 'US table',
      is_own: false,
    },
  ],
  recipes: [],
  mixes: [],
  scale: '0.1',
  ...more,
})

export const cured = (mark: string, more: Partial<Cures['cures'][number]> = {}): Cures['cures'][number] => ({
  id: 7,
  mark,
  school: 'measured',
  recipe: 'House dry, version 2',
  in_at: '2026-03-02T08:00:00Z',
  first_at: '2026-03-09T08:00:00Z',
  last_at: '2026-03-14T08:00:00Z',
  out_at: '2026-03-11T08:00:00Z',
  by: 'Maren',
  input: {} as Schemas['RecipeIn'],
  answer: deskPiece(mark),
  is_under_way: true,
  taken_back: null,
  ...more,
})
