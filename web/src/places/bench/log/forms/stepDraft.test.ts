import { describe, expect, it } from 'vitest'
import type { Batch } from '@/shared/api/client'
import { blankStep, contentOf, draftOf, fitPieces, nextMark, OWN } from './stepDraft'

const piece = (mark: string, label: string, free_marks: string[]) => ({
  mark,
  label,
  weight: { lb: '1.00', kg: '0.454' },
  cost: null,
  slices: null,
  free_marks,
})
const batch = (next: string[], ...pieces: Batch['pieces']): Pick<Batch, 'pieces' | 'strip'> => ({
  pieces,
  strip: { columns: [], to_come: next.map((kind) => ({ kind, label: kind })) },
})
const bought = batch(['trim', 'cure'], piece('lot', 'Bought', ['A', 'B', 'C']))
const chilled = batch(['slice'], piece('A', 'Chilled', ['A1', 'A2']), piece('B', 'Chilled', ['B1', 'B2']))

describe('a step being typed', () => {
  it('starts at what usually comes next, on the piece that waits for it', () => {
    expect(blankStep(bought)).toMatchObject({
      kind: 'trim',
      piece: 'lot',
      pieces: [{ mark: 'A', weight: '' }],
    })
    const partly = batch([], piece('A1', 'Sliced', []), piece('B', 'Chilled', ['B1']))
    expect(blankStep(partly)).toMatchObject({ kind: 'slice', piece: 'B', pieces: [{ mark: 'B1' }] })
  })

  it('gives each new piece the next free mark', () => {
    const draft = blankStep(bought)
    draft.pieces = [{ mark: 'b', weight: '', slices: '' }]
    expect(nextMark(draft, bought)).toBe('A')
  })

  it('leaves out pieces that were not weighed, and keeps what was typed when pieces change', () => {
    const draft = blankStep(chilled)
    draft.kind = 'smoke'
    draft.weights = [
      { mark: 'A', weight: '' },
      { mark: 'B', weight: '2 lb' },
    ]
    fitPieces(draft, batch(['slice'], ...chilled.pieces, piece('C', 'Chilled', [])))
    expect(contentOf(draft)).toMatchObject({
      act: 'weigh',
      kind: 'smoke',
      weights: [{ mark: 'B', weight: '2 lb' }],
    })
    expect(draft.weights.map((row) => row.mark)).toEqual(['A', 'B', 'C'])
  })

  it('sends slices only from slicing, a price only where one is meant', () => {
    const draft = blankStep(bought)
    draft.pieces[0] = { mark: 'A', weight: '4 lb', slices: '12' }
    draft.cutOff.push({
      mark: '',
      name: 'fat',
      material: 'fat',
      weight: '1 lb',
      worth: 'as_main',
      price: '2.00',
    })
    expect(contentOf(draft)).toMatchObject({ pieces: [{ slices: '' }], cut_off: [{ price: '' }] })
    draft.kind = 'slice'
    expect(contentOf(draft)).toMatchObject({ pieces: [{ slices: '12' }] })
  })

  it('tells a recorded step again as it was', () => {
    for (const content of [
      {
        act: 'split' as const,
        kind: 'trim',
        minutes: '20',
        used: [{ what: 'salt', group: 'cure', amount: '9 g', price: '1/kg', pieces: [] }],
        overhead: '2.00',
        scale: '5 g',
        piece: 'lot',
        pieces: [{ mark: 'A', weight: '4 lb', slices: '' }],
        heat: '' as const,
        inside: '',
        cut_off: [
          {
            mark: '',
            name: 'fat',
            material: 'fat' as const,
            weight: '1 lb',
            worth: 'price' as const,
            price: '1/lb',
          },
        ],
      },
      {
        act: 'weigh' as const,
        kind: 'hang',
        minutes: '',
        used: [{ what: 'herbs', group: 'cure', amount: '', price: '1.10', pieces: ['A'] }],
        overhead: '',
        heat: '' as const,
        inside: '',
        scale: '',
        weights: [{ mark: 'A', weight: '3 lb' }],
      },
    ]) {
      expect(contentOf(draftOf(content))).toEqual(content)
    }
    const none = { minutes: '', used: [], overhead: '', scale: '', heat: '' as const, inside: '' }
    const own = { act: 'weigh' as const, kind: 'render', ...none, weights: [] }
    expect(draftOf(own)).toMatchObject({ kind: OWN, ownWord: 'render' })
    expect(contentOf({ ...draftOf(own), ownAct: 'split' }).act).toBe('split')
  })

  it('says of a smoke whether it was hot, as expected of the pieces unless chosen', () => {
    const smoked = { ...blankStep(chilled), kind: 'smoke', inside: ' 152 ' }
    expect(contentOf(smoked)).toMatchObject({ heat: 'hot', inside: '152' })
    expect(contentOf(smoked, 'cold')).toMatchObject({ heat: 'cold' })
    expect(contentOf({ ...smoked, heat: 'hot' }, 'cold')).toMatchObject({ heat: 'hot' })
    expect(draftOf(contentOf(smoked, 'cold'))).toMatchObject({ kind: 'smoke', heat: 'cold', inside: '152' })
    // of other steps nothing is said, whatever was typed before
    expect(contentOf({ ...smoked, kind: 'cook', heat: 'cold' })).toMatchObject({ heat: '', inside: '152' })
    expect(contentOf({ ...smoked, kind: 'rest' }, 'cold')).toMatchObject({ heat: '', inside: '' })
  })
})
