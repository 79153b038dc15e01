import { mount, RouterLinkStub } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { checkedOffer, standIn } from '@/shared/tests/samples'
import { chanceText } from '@/shared/quantity/chance'
import { caseScale } from './caseScale'
import CaseAxis from './CaseAxis.vue'
import { blankOffer, dropDigit, formText, pushDigit, titleText } from './offerDraft'
import OfferDrawing from './OfferDrawing.vue'
import OfferPad from './OfferPad.vue'
import OfferRow from './OfferRow.vue'

vi.mock('vue-router', () => ({ useRouter: () => ({ push: vi.fn() }) }))
beforeEach(() => standIn('lb'))
const shops = [
  { name: 'cheap', price: 4.3, text: '$4.30' },
  { name: 'good', price: 8.2, text: '$8.20' },
]
const offer = (more: object = {}) => ({
  ...blankOffer('per_lb'),
  id: 'a',
  cut: 'jowl',
  price: '2.85',
  ...more,
})

const note = (message: string) => ({
  code: message,
  severity: 'note' as const,
  subject: '',
  message,
  source: '',
})

describe('the pad', () => {
  it('takes digits from the right, as cents, and gives them back', () => {
    let price = ''
    for (const digit of ['2', '8', '5']) price = pushDigit(price, digit)
    expect(price).toBe('2.85')
    expect(pushDigit('', '00')).toBe('')
    expect(pushDigit('0.05', '00')).toBe('5.00')
    expect(pushDigit('99999.99', '1')).toBe('99999.99')
    expect(dropDigit('2.85')).toBe('0.28')
    expect(dropDigit('0.02')).toBe('')
    expect(dropDigit('')).toBe('')
  })

  const press = async (pad: ReturnType<typeof mount>, ...names: string[]): Promise<void> => {
    for (const name of names) {
      const key = pad.findAll('button').find((one) => one.text() === name)
      await key?.trigger('click')
    }
  }

  it('reads a tag and is ready for the next one', async () => {
    const pad = mount(OfferPad, { props: { offer: null, listed: [] } })
    await press(pad, 'Jowl', 'skin on', '12 %', '2', '8', '5')
    await pad.find('form').trigger('submit')
    const [result, next] = pad.emitted('done')?.[0] as [ReturnType<typeof offer>, boolean]
    expect(result).toMatchObject({
      cut: 'jowl',
      skin: 'on',
      solution: '12',
      price: '2.85',
      basis: 'per_lb',
    })
    expect(next).toBe(true)
    await pad.find('form').trigger('submit')
    expect(pad.text()).toContain('Choose the cut.')
    await press(pad, 'Loin')
    await pad.find('form').trigger('submit')
    expect(pad.text()).toContain('Enter the price.')
    expect(pad.emitted('done')).toHaveLength(1)
  })

  it('goes on to the weight when the price is for the pack', async () => {
    const pad = mount(OfferPad, { props: { offer: null, listed: [] } })
    await press(pad, 'Shoulder', '1', '5', '9', '2', 'the pack', '8', '00', '←', 'Add, done')
    const [result] = pad.emitted('done')?.[0] as [ReturnType<typeof offer>, boolean]
    expect(result).toMatchObject({ price: '15.92', basis: 'pack', pack_weight: '0.80 lb' })
  })

  it('takes an offer over from the price list', async () => {
    const listed = [
      {
        cut: 'jowl, skin on',
        price: '2.85',
        source: 'Quay butcher',
        on: '2026-03-02',
        pack_weight: '12.00 lb',
        solution: '',
      },
    ]
    const pad = mount(OfferPad, { props: { offer: null, listed } })
    await pad.find('select').setValue('0')
    await pad.find('form').trigger('submit')
    const [result] = pad.emitted('done')?.[0] as [ReturnType<typeof offer>, boolean]
    expect(result).toMatchObject({ cut: 'jowl, skin on', price: '2.85', pack_weight: '12.00 lb' })
  })
})

describe('an offer', () => {
  const show = (result = checkedOffer(), typed = offer()) =>
    mount(OfferRow, {
      props: {
        offer: result,
        typed,
        asked: {
          way: 'w',
          course: 'cooked',
          against: '',
          about: '',
          portions: '',
          sliced: '',
          sure: '90',
          on: null,
          offers: [typed],
        },
        checked: {
          offers: [result],
          shops: [],
          against: 'good',
          problems: [],
          way: 'w',
          course: 'cooked',
          course_label: 'cooked',
          portion_label: '3 slices',
          buy_by: null,
          ready_if_bought_today: null,
          notes: [],
        },
        scale: caseScale([2, 9], 400),
        width: 400,
        shops,
      },
      global: { components: { RouterLink: RouterLinkStub }, plugins: [VueQueryPlugin] },
    })
  const text = (row: ReturnType<typeof show>): string => row.text().replace(/\s+/g, ' ')

  it('says in place of “buy” what can turn it', () => {
    const warning = 'Enhanced meat is better not cured.'
    const shown = show(checkedOffer({ verdict: 'buy', warning }))
    expect(shown.get('.word').text()).toBe('better not cured')
    expect(text(shown)).toContain(warning)
    expect(
      show(checkedOffer({ verdict: 'buy' }))
        .get('.word')
        .text(),
    ).toBe('buy')
  })

  it('is named by cut and form, and says what else the tag says', () => {
    expect(titleText(offer({ skin: 'on' }))).toBe('Jowl, skin on')
    expect(titleText(offer({ cut: 'shoulder, bone in', bone: 'in' }))).toBe('Shoulder, bone in')
    expect(formText(offer({ trimmed: true, pack_weight: '12.00 lb' }))).toBe('trimmed, 12 lb pack')
    expect(formText(offer({ enhanced: true }))).toBe('by weight, enhanced')
  })

  it('says the verdict, what it is worth, the chance and the hour', () => {
    const result = text(show())
    for (const words of [
      'buy',
      'worth up to $3.37',
      'beats good 93 times out of 100',
      'earns $24.53',
      '$2.85',
    ]) {
      expect(result).toContain(words)
    }
    expect(text(show(checkedOffer({ worth_up_to: { per_lb: '-1.00', per_kg: '-2.20' } })))).toContain(
      'not worth it at any price',
    )
    expect(text(show(checkedOffer({ verdict: null, chance: null, worth_up_to: null })))).toContain(
      'no shop price to compare',
    )
  })

  it('counts its doubts and tells them when opened', async () => {
    const row = show(checkedOffer({ doubts: [note('No batch of this cut.'), note('Enhanced.')] }))
    expect(text(row)).toContain('2 notes')
    await row.find('button.more').trigger('click')
    expect(text(row)).toContain('No batch of this cut.')
    expect(text(row)).toContain('0.85 ± 0.04: start value, 0 batches')
    expect(text(row)).toContain('Take 2 packs home')
    await row.find('button[aria-label="One pack less"]').trigger('click')
    expect(text(row)).toContain('Take the pack home')
  })

  it('asks before it judges where the price looks like the pack’s', async () => {
    const row = show(checkedOffer({ question: '$34.20 a pound?', question_is: 'is_pack' }))
    expect(text(row)).toContain('is that right?')
    expect(text(row)).not.toContain('worth up to')
    const [pack, right] = row.findAll('.question button')
    await pack?.trigger('click')
    await right?.trigger('click')
    expect(row.emitted('answer')).toEqual([[true], [false]])
  })
})

describe('the drawing', () => {
  it('puts dearer further right, and fewer ticks where there is less room', () => {
    const scale = caseScale([2, 5, 9], 500)
    expect(scale.at(2)).toBeLessThan(scale.at(9))
    expect(scale.at(9)).toBeLessThan(500)
    expect(caseScale([2, 5, 9], 200).ticks.length).toBeLessThan(scale.ticks.length)
    expect(caseScale([], 200).ticks.length).toBeGreaterThan(0)
  })

  const draw = (middle: number) =>
    mount(OfferDrawing, {
      props: {
        scale: caseScale([0, 10], 500),
        width: 500,
        tag: 2,
        middle,
        low: middle - 0.5,
        high: middle + 0.5,
        text: 'x',
        shops,
        against: 'good',
      },
    })

  it('keeps the figure clear of a shop’s line and of the edge', () => {
    expect(draw(6).find('text').attributes('text-anchor')).toBe('start')
    expect(draw(8).find('text').attributes('text-anchor')).toBe('end')
    expect(draw(11.6).find('text').attributes('text-anchor')).toBe('end')
  })

  it('sets names of shop kinds that would run into one another on rows of their own', () => {
    const close = [
      { name: 'good shop bacon', price: 8, text: '$8' },
      { name: 'best shop bacon', price: 8.4, text: '$8.40' },
    ]
    const axis = mount(CaseAxis, { props: { scale: caseScale([0, 10], 500), width: 500, shops: close } })
    const rows = axis.findAll('text').map((one) => one.attributes('y'))
    expect(new Set(rows).size).toBe(2)
  })
})

describe('a chance', () => {
  it('pretends to no more than it knows', () => {
    expect(chanceText(93, 'it')).toBe('beats it 93 times out of 100')
    expect(chanceText(100, 'it')).toBe('almost certainly beats it')
    expect(chanceText(0, 'it')).toBe('hardly ever beats it')
  })
})
