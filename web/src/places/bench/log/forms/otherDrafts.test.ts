import { describe, expect, it } from 'vitest'
import { blankBought, boughtContent, boughtOf } from '@/shared/parts/boughtDraft'
import { termsContent, termsOf } from './termsDraft'
import { blankTogether, togetherContent, togetherOf } from './togetherDraft'
import { usualGroup } from './usedDraft'

const used = [{ what: 'garlic', group: 'cure', amount: '9 g', price: '1.10', pieces: ['A'] }]
const carried = { used, minutes: '25', overhead: '2.00', scale: '5 g' }

describe('pieces that come together or are thrown away', () => {
  it('are filled in again as they were recorded', () => {
    const merge = {
      act: 'merge' as const,
      kind: 'mix',
      pieces: ['A', 'lot 2'],
      into: { mark: 'M', weight: '6 lb', slices: '' },
      ...carried,
    }
    expect(togetherContent('merge', togetherOf(merge))).toEqual(merge)
    const discard = {
      act: 'discard' as const,
      kind: 'discard',
      pieces: ['R'],
      charge: 'loss' as const,
      why: 'the casing split',
      ...carried,
    }
    expect(togetherContent('discard', togetherOf(discard))).toEqual(discard)
  })

  it('begin with nothing ticked, the others bearing what is thrown away', () => {
    expect(blankTogether('discard')).toMatchObject({ marks: [], charge: 'batch', kind: 'discard' })
    expect(togetherOf({ act: 'withdraw' })).toEqual(blankTogether('merge'))
  })

  it('do not share what is typed with the record they came from', () => {
    const pieces = ['A']
    const common = { kind: 'discard', used: [], minutes: '', overhead: '', scale: '' }
    const draft = togetherOf({ act: 'discard', ...common, pieces, charge: 'batch', why: '' })
    draft.marks.push('B')
    expect(pieces).toEqual(['A'])
  })
})

describe('what a batch is judged by', () => {
  it.each([
    { act: 'portion' as const, slices: '3', weight: '', cooked_weight: '' },
    { act: 'portion' as const, slices: '', weight: '2 oz', cooked_weight: '' },
    { act: 'portion' as const, slices: '', weight: '', cooked_weight: '1 oz' },
    { act: 'shop_pack' as const, name: 'good', paid: '6.15', weight: '12 oz', slices: '11', fry: '34' },
    { act: 'fry' as const, kept: '42.5', raw: '', cooked: '' },
    { act: 'fry' as const, kept: '', raw: '112 g', cooked: '47 g' },
  ])('is result again as it was recorded: %o', (content) => {
    expect(termsContent(content.act, termsOf(content))).toEqual(content)
  })

  it('is one way of three: what was typed for another is not sent', () => {
    const draft = { ...termsOf(undefined), slices: '3', weight: '2 oz' }
    expect(termsContent('portion', draft)).toMatchObject({ slices: '3', weight: '' })
    expect(termsContent('portion', { ...draft, way: 'cooked_weight' })).toMatchObject({
      slices: '',
      cooked_weight: '2 oz',
    })
  })
})

describe('meat', () => {
  const bought = {
    act: 'bought' as const,
    mark: '',
    cut: 'jowl',
    label_weight: '24.3 lb',
    own_weight: '24 lb',
    price_basis: 'per_lb' as const,
    price: '2.79',
    extras: [{ what: 'cart', cost: '2.00' }],
    solution: '12',
    scale: '5 g',
    bought_from: 'Quay butcher',
    source: null,
  }

  it('is filled in again as it was bought', () => {
    expect(boughtContent(boughtOf(bought))).toEqual(bought)
  })

  it('from another batch names it, and is not bought by weight', () => {
    const linked = { ...bought, price: '', source: { batch: 'J-01', piece: 'C1', weight: '2 lb' } }
    expect(boughtContent(boughtOf(linked))).toEqual({ ...linked, price_basis: 'pack' })
    expect(boughtOf({ act: 'withdraw' })).toEqual(blankBought())
  })
})

it('guesses the group of what is used from the step it is used in', () => {
  expect(['cure', 'smoke', 'slice', 'hang'].map(usualGroup)).toEqual(['cure', 'fuel', 'packaging', 'other'])
})
