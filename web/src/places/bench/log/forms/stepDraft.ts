import type { Batch, Content, Schemas } from '@/shared/api/client'
import { type UsedDraft, usedContent, usedOf } from './usedDraft'

type CutOff = Schemas['CutOffIn']
export type Material = NonNullable<CutOff['material']>
export type Worth = NonNullable<CutOff['worth']>
export type PieceRow = { mark: string; weight: string; slices: string }
export type CutRow = {
  mark: string
  name: string
  material: Material
  weight: string
  worth: Worth
  price: string
}
export type WeightRow = { mark: string; weight: string }

/** A step being typed; `kind` "own" takes the cook's own word, and whether it was a cut. */
export type StepDraft = UsedDraft & {
  kind: string
  ownWord: string
  ownAct: 'weigh' | 'split'
  piece: string
  pieces: PieceRow[]
  cutOff: CutRow[]
  weights: WeightRow[]
  /** Of a smoke; empty: as is expected of the pieces. */
  heat: Heat | ''
  /** The highest temperature inside, as typed. */
  inside: string
}
export type Heat = Schemas['PieceFactsOut']['smoke']

export const OWN = 'own'
export const kinds = [
  { value: 'trim', word: 'Trim' },
  { value: 'pump', word: 'Pump' },
  { value: 'cure', word: 'Cure' },
  { value: 'wash', word: 'Wash' },
  { value: 'rest', word: 'Rest' },
  { value: 'smoke', word: 'Smoke' },
  { value: 'cook', word: 'Cook' },
  { value: 'steam', word: 'Steam' },
  { value: 'hang', word: 'Hang' },
  { value: 'dry-age', word: 'Dry-age' },
  { value: 'chill', word: 'Chill' },
  { value: 'pull', word: 'Pull' },
  { value: 'dice', word: 'Dice' },
  { value: 'slice', word: 'Slice' },
  { value: OWN, word: 'Other' },
]
const isCutKind = (kind: string): boolean => kind === 'trim' || kind === 'slice'
export const isCut = (draft: StepDraft): boolean =>
  draft.kind === OWN ? draft.ownAct === 'split' : isCutKind(draft.kind)

/** What usually comes off, by kind of cut. */
export const offcuts: Record<string, { name: string; material: Material }[]> = {
  trim: [
    { name: 'skin', material: 'skin' },
    { name: 'lean trim', material: 'lean' },
    { name: 'fat', material: 'fat' },
    { name: 'bone', material: 'bone' },
    { name: 'rind', material: 'waste' },
    { name: 'dark edge', material: 'waste' },
    { name: 'silver skin', material: 'waste' },
    { name: 'fat cap', material: 'fat' },
    { name: 'waste', material: 'waste' },
  ],
  slice: [
    { name: 'ends', material: 'ends' },
    { name: 'pieces', material: 'ends' },
    { name: 'skin', material: 'skin' },
  ],
}

/** The kinds a step may be recorded as; a correction stays what it was, a cut or a weighing. */
export function kindsFor(act: string | null) {
  return act === null
    ? kinds
    : kinds.filter((kind) => kind.value === OWN || isCutKind(kind.value) === (act === 'split'))
}

type Known = Pick<Batch, 'pieces' | 'strip'>

const emptyStep = (): StepDraft => ({
  kind: '',
  ownWord: '',
  ownAct: 'weigh',
  piece: '',
  pieces: [],
  cutOff: [],
  weights: [],
  heat: '',
  inside: '',
  used: [],
  minutes: '',
  overhead: '',
  scale: '',
})

/** An empty step, set to what usually comes next and to the piece that waits longest for it. */
export function blankStep(batch: Known): StepDraft {
  const draft = { ...emptyStep(), kind: batch.strip.to_come[0]?.kind ?? 'slice' }
  fitPieces(draft, batch)
  return draft
}

/** Set the rows of `draft` to the pieces that live, keeping what was typed. */
export function fitPieces(draft: StepDraft, batch: Known): void {
  const marks = batch.pieces.map((piece) => piece.mark)
  if (!marks.includes(draft.piece)) {
    const whole = batch.pieces.find((piece) => piece.label !== 'Sliced') ?? batch.pieces[0]
    draft.piece = whole?.mark ?? ''
    if (draft.pieces.every((row) => !row.weight)) draft.pieces = []
  }
  if (draft.pieces.length === 0)
    draft.pieces = [{ mark: freeMarks(draft.piece, batch)[0] ?? '', weight: '', slices: '' }]
  draft.weights = marks.map((mark) => draft.weights.find((row) => row.mark === mark) ?? { mark, weight: '' })
}

export function freeMarks(piece: string, batch: Known): string[] {
  return batch.pieces.find((one) => one.mark === piece)?.free_marks ?? []
}

/** The next free mark that no row has taken. */
export function nextMark(draft: StepDraft, batch: Known): string {
  const taken = new Set(draft.pieces.map((row) => row.mark.toUpperCase()))
  return freeMarks(draft.piece, batch).find((mark) => !taken.has(mark)) ?? ''
}

/** The pieces that were weighed, in the order in which they are sent. */
export const weighedRows = (draft: StepDraft): WeightRow[] => draft.weights.filter((row) => row.weight.trim())

/** Whether a step heats, so that its temperature inside may be told. */
export const isHeating = (kind: string): boolean => ['smoke', 'cook', 'steam'].includes(kind)

/** The step as it is sent. Slices go with slicing alone; pieces not weighed are left out. */
export function contentOf(draft: StepDraft, expected: Heat = 'hot'): Content {
  const kind = draft.kind === OWN ? draft.ownWord.trim() : draft.kind
  const marks = isCut(draft) ? [] : weighedRows(draft).map((row) => row.mark)
  const carried = usedContent(draft)
  for (const row of carried.used) row.pieces = row.pieces.filter((mark) => marks.includes(mark))
  const heats = isHeating(kind)
  const common = {
    kind,
    ...carried,
    heat: kind === 'smoke' ? draft.heat || expected : ('' as const),
    inside: heats ? draft.inside.trim() : '',
  }
  if (!isCut(draft)) return { act: 'weigh', ...common, weights: weighedRows(draft) }
  const slicing = draft.kind === 'slice'
  return {
    act: 'split',
    ...common,
    piece: draft.piece,
    pieces: draft.pieces.map((row) => ({ ...row, slices: slicing ? row.slices : '' })),
    cut_off: draft.cutOff.map((row) => ({ ...row, price: row.worth === 'price' ? row.price : '' })),
  }
}

/** A recorded step as a draft, to be corrected. */
export function draftOf(content: Content): StepDraft {
  const draft = emptyStep()
  if (content.act !== 'split' && content.act !== 'weigh') return draft
  const known = kinds.some(
    (kind) => kind.value === content.kind && isCutKind(kind.value) === (content.act === 'split'),
  )
  draft.kind = known ? content.kind : OWN
  draft.ownWord = known ? '' : content.kind
  draft.ownAct = content.act
  Object.assign(draft, usedOf(content), { heat: content.heat, inside: content.inside })
  if (content.act === 'weigh') {
    draft.weights = content.weights.map((row) => ({ ...row }))
    return draft
  }
  draft.piece = content.piece
  draft.pieces = content.pieces.map((row) => ({ ...row }))
  draft.cutOff = content.cut_off.map((row) => ({ ...row }))
  return draft
}
