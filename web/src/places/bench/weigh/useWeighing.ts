import { stampNow } from '@/shared/api/deviceClock'
import { computed, reactive, ref, watch, type Ref } from 'vue'
import type { Batch, Content, Cures, Entry, PieceFire, Pieces, Schemas } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { isEntry, onArrived, post, useOutbox } from '@/shared/outbox/outbox'
import { useDraft } from '@/shared/writing/useDraft'
import { stepWord } from '@/shared/parts/stepWords'

type Used = Schemas['UsedIn']
/** A part weighed of a piece that is being cut: it stays, or came off. */
type Heat = Schemas['PieceFactsOut']['smoke']
export type Part = {
  mark: string
  name: string
  material: string
  weight: string
  worth: 'nothing' | 'price' | 'as_main'
  price: string
}
/** The last thing taken, so that it can be undone: by its letter's key, or its entry once that is known. */
type Last = { key: string; entry: number | null; words: string; code: string; mark: string }

const cutKinds = new Set(['trim', 'slice'])
const last = ref<Last | null>(null)
/** What has been recorded but is not in the list of pieces yet, which is asked for anew: "B-01 smoke A". */
const arrived = reactive(new Set<string>())
const nameOf = (code: string, kind: string, mark: string): string => `${code} ${kind} ${mark}`
onArrived((letter, answer) => {
  const content = isEntry(letter.body) ? letter.body.content : null
  if (letter.mark && content && 'kind' in content) arrived.add(nameOf(letter.code, content.kind, letter.mark))
  if (last.value?.key === letter.key && answer.entry !== undefined) last.value.entry = answer.entry
})

function isInCure(pieces: Pieces, cures: Cures | undefined): boolean {
  const inside = new Set((cures?.cures ?? []).filter((one) => one.is_under_way).map((one) => one.mark))
  return pieces.pieces.some((piece) => inside.has(piece.mark) && !piece.kinds.includes('cure'))
}

/** The step to weigh for: out of the cure where pieces are in one, the latest while some still wait for it, or the next. */
export function stepAtHand(batch: Batch, pieces: Pieces, cures?: Cures): string {
  if (isInCure(pieces, cures)) return 'cure'
  const latest = batch.strip.columns.at(-1)?.kind ?? ''
  const waits = pieces.pieces.some((piece) => !piece.kinds.includes(latest))
  const isStep = batch.strip.columns.length > 1
  if (isStep && waits && pieces.pieces.length > 1) return latest
  return batch.strip.to_come[0]?.kind ?? 'weigh'
}

/** An entry that weighed one piece alone in a step of `kind`. */
function loneWeight(entry: Entry, kind: string) {
  const { content, id } = entry
  const [line, more] = content.act === 'weigh' && content.kind === kind ? content.weights : []
  return line && !more && content.act === 'weigh' ? { id, content, ...line } : null
}

/** Weighing the pieces of one step, one after another; each is recorded as it is taken. */
export function useWeighing(options: {
  code: Ref<string>
  kind: Ref<string>
  batch: Ref<Batch | undefined>
  pieces: Ref<Pieces | undefined>
  cures: Ref<Cures | undefined>
  fires: Ref<PieceFire[] | undefined>
  /** The piece to begin with; empty: the first that waits. */
  first?: string
}) {
  const kitchen_slug = useSlug()
  const { letters } = useOutbox()
  const isCut = computed(() => cutKinds.has(options.kind.value))
  const chosen = ref(options.first ?? '')
  // of whichever step: which one it is, is known only once the batch is here
  const { draft, clear } = useDraft(`${options.code.value}:parts`, () => ({
    parts: [] as Part[],
    piece: '',
    heat: '' as Heat | '',
  }))

  /** What of this batch waits on the device, by mark. */
  const waiting = computed(() => {
    const undone = new Set(letters.value.map((letter) => letter.undoes))
    return new Map(
      letters.value
        .filter((letter) => letter.code === options.code.value && letter.mark && !undone.has(letter.key))
        .map((letter) => [letter.mark, letter]),
    )
  })
  const rows = computed(() =>
    (options.pieces.value?.pieces ?? []).map((piece) => {
      const letter = waiting.value.get(piece.mark)
      const done =
        piece.kinds.includes(options.kind.value) ||
        arrived.has(nameOf(options.code.value, options.kind.value, piece.mark))
      return { ...piece, letter, done: done || letter !== undefined }
    }),
  )
  /** The piece on the scale: the chosen one, else the first out of the fire, or the first, that was not weighed. */
  const current = computed(
    () =>
      rows.value.find((row) => row.mark === chosen.value) ??
      rows.value.find((row) => !row.done && fireOf(row.mark)) ??
      rows.value.find((row) => !row.done) ??
      rows.value[0] ??
      null,
  )
  /** Hot or cold smoke: as chosen, else as is expected of the piece on the scale; of no other step. */
  const heat = computed({
    get: (): Heat | '' =>
      options.kind.value === 'smoke' ? draft.heat || (current.value?.smoke ?? 'hot') : '',
    set: (value: Heat | '') => (draft.heat = value),
  })
  /** The piece being cut, and the mark of the part that comes next. */
  const cutPiece = computed(
    () =>
      rows.value.find((row) => row.mark === draft.piece) ??
      rows.value.find((row) => !row.done) ??
      rows.value[0] ??
      null,
  )
  const nextMark = computed(() => {
    const free =
      options.batch.value?.pieces.find((piece) => piece.mark === cutPiece.value?.mark)?.free_marks ?? []
    const taken = new Set(draft.parts.map((part) => part.mark))
    return free.find((mark) => !taken.has(mark)) ?? ''
  })
  watch(
    () => options.pieces.value?.pieces.map((piece) => piece.mark).join(),
    () => {
      const marks = options.pieces.value?.pieces.map((piece) => piece.mark) ?? []
      if (options.pieces.value && draft.piece && !marks.includes(draft.piece)) clear()
    },
    { immediate: true },
  )

  // what the list of pieces says now is what counts
  watch(options.pieces, () => arrived.clear())

  const path = computed(() => `/api/kitchens/${kitchen_slug.value}/batches/${options.code.value}/entries`)
  function record(content: Content, words: string, mark: string): void {
    const seen = options.batch.value?.seen ?? 0
    const body = { content, seen, corrects: null, reason: '', happened_at: stampNow() }
    const letter = post({ path: path.value, body, words, code: options.code.value, mark })
    last.value = { key: letter.key, entry: null, words, code: options.code.value, mark }
  }

  /** The fire a piece came out of and is weighed for now; what it took goes into the step once. */
  const fireOf = (mark: string): PieceFire | undefined =>
    options.fires.value?.find(
      (one) => one.mark === mark && one.kind === options.kind.value && one.out_at !== null && !one.is_weighed,
    )

  /** What goes into the step with a piece: the cure it was in, or its share of the fire. */
  function carriedBy(mark: string): { used: Used[]; minutes: string } {
    if (options.kind.value === 'cure')
      return {
        used: (options.cures.value?.charges ?? []).filter((charge) => charge.pieces.includes(mark)),
        minutes: '',
      }
    const fire = fireOf(mark)
    const used = (fire?.used ?? []).map((line) => ({ ...line, group: 'fuel', amount: '', pieces: [mark] }))
    return { used, minutes: fire?.minutes === '0' ? '' : (fire?.minutes ?? '') }
  }

  function takeWeight(weight: string, scale: string): void {
    const piece = current.value
    if (!piece) return
    record(
      {
        act: 'weigh',
        kind: options.kind.value || 'weigh',
        weights: [{ mark: piece.mark, weight }],
        heat: heat.value,
        inside: '',
        overhead: '',
        scale,
        ...carriedBy(piece.mark),
      },
      `${weight} for ${piece.mark}`,
      piece.mark,
    )
    // on to the next one that waits
    const others = rows.value.filter((row) => row.mark !== piece.mark && !row.done)
    chosen.value = (others.find((row) => fireOf(row.mark)) ?? others[0])?.mark ?? piece.mark
  }

  function takePart(weight: string, off: Part | null): void {
    draft.piece = cutPiece.value?.mark ?? ''
    const kept: Part = {
      mark: nextMark.value,
      name: '',
      material: 'lean',
      weight,
      worth: 'nothing',
      price: '',
    }
    draft.parts.push(off ? { ...off, weight } : kept)
  }

  function recordCut(scale: string): void {
    const piece = cutPiece.value
    if (!piece) return
    const stays = draft.parts.filter((part) => part.mark)
    const off = draft.parts.filter((part) => !part.mark)
    record(
      {
        act: 'split',
        kind: options.kind.value,
        piece: piece.mark,
        heat: '',
        inside: '',
        pieces: stays.map((part) => ({ mark: part.mark, weight: part.weight, slices: '' })),
        cut_off: off.map((part) => ({
          mark: '',
          name: part.name,
          material: part.material as 'skin',
          weight: part.weight,
          worth: part.worth,
          price: part.worth === 'price' ? part.price : '',
        })),
        minutes: '',
        overhead: '',
        scale,
        used: [],
      },
      `${stepWord(options.kind.value)} of ${piece.mark}`,
      piece.mark,
    )
    clear()
  }

  /** Undo the last record; it stays in the log, and so does this. */
  function undo(): void {
    const now = last.value
    if (!now) return
    const seen = options.batch.value?.seen ?? 0
    const body = {
      content: { act: 'withdraw' as const },
      seen,
      corrects: now.entry,
      reason: 'undone at the scale',
      happened_at: null,
    }
    const undoes = now.entry === null ? { undoes: now.key } : {}
    const words = `${now.words} undone`
    const address = `/api/kitchens/${kitchen_slug.value}/batches/${now.code}/entries`
    post({ path: address, body, words, code: now.code, mark: '', ...undoes })
    for (const one of [...arrived]) if (one.startsWith(`${now.code} `)) arrived.delete(one)
    // and it is on the scale again
    if (now.code === options.code.value) chosen.value = now.mark
    last.value = null
  }
  /** The last two pieces weighed for this step, where neither waits to be sent: their weights may be mixed up. */
  const pair = computed(() => {
    if (isCut.value || waiting.value.size) return null
    const weighed = (options.batch.value?.log ?? []).filter(
      (entry) => entry.overruled_by === null && entry.content.act === 'weigh',
    )
    const [one, other] = weighed.slice(-2).map((entry) => loneWeight(entry, options.kind.value))
    return one && other && one.mark !== other.mark ? { one, other } : null
  })
  const swapWords = computed(() =>
    pair.value ? `Swap the weights of ${pair.value.one.mark} and ${pair.value.other.mark}` : '',
  )
  /** Each of the two gets the other's weight; both wrong entries stay in the log. */
  function swap(): void {
    if (!pair.value) return
    const { one, other } = pair.value
    const reason = `${one.mark} and ${other.mark} mixed up at the scale`
    for (const [wrong, right] of [
      [one, other],
      [other, one],
    ] as const) {
      const content = { ...wrong.content, weights: [{ mark: wrong.mark, weight: right.weight }] }
      const seen = options.batch.value?.seen ?? 0
      const body = { content, seen, corrects: wrong.id, reason, happened_at: null }
      const words = `${right.weight} for ${wrong.mark}`
      post({ path: path.value, body, words, code: options.code.value, mark: wrong.mark })
    }
    last.value = null
  }
  const canUndo = computed(() => last.value !== null && last.value.code === options.code.value)
  const undoWords = computed(() => last.value?.words ?? '')

  return {
    isCut,
    rows,
    current,
    chosen,
    draft,
    heat,
    cutPiece,
    nextMark,
    fireOf,
    takeWeight,
    takePart,
    recordCut,
    undo,
    canUndo,
    undoWords,
    swap,
    swapWords,
  }
}
