import { mount, RouterLinkStub } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import type { Batch, Verdict } from '@/shared/api/client'
import { batch, cost, entry, judged, shop, standIn, verdict } from '@/shared/tests/samples'
import AgainstShop from './AgainstShop.vue'
import BillParts from './BillParts.vue'
import HeadlinePrice from './HeadlinePrice.vue'
import WhyFigure from '@/shared/why/WhyFigure.vue'
import { provideWhy } from '@/shared/why/why'

beforeEach(() => standIn('lb'))

const components = { RouterLink: RouterLinkStub }
const text = (component: object, shown: Batch, known?: Verdict): string =>
  mount(component, { props: { batch: shown, verdict: known }, global: { components } })
    .text()
    .replace(/\s+/g, ' ')
const sliced = (): Batch => {
  const shown = batch({ is_finished: true, shops: [shop()] })
  const more = {
    stage: 'sliced',
    is_sliced: true,
    is_finished: true,
    slices: 96,
    cost_per_slice: '0.24',
    portion: '0.73',
  }
  shown.house = { ...shown.house, ...more, portion_label: '3 slices' }
  return shown
}

describe('the headline', () => {
  it('names the stage its price is of, and that it is not the last', () => {
    const result = text(HeadlinePrice, batch())
    expect(result).toContain('Price of a trimmed pound, so far')
    expect(result).toContain('$2.94')
    expect(result).toContain('$6.48 a kilogram')
  })

  it('drops “so far” only when all is sliced, and then prices slice and portion', () => {
    const result = text(HeadlinePrice, sliced())
    expect(result).toContain('Price of a sliced pound$2.94')
    expect(result).toContain('A portion, 3 slices$0.73')
    expect(result).toContain('One slice (96 slices in all)$0.24')
  })

  it('says that a portion of slices must wait for the knife', () => {
    const shown = batch()
    shown.house.portion_label = '3 slices'
    expect(text(HeadlinePrice, shown)).toContain('A portion, 3 slicesknown once sliced')
  })

  it('puts the kilogram first in a kitchen that thinks in kilograms', () => {
    standIn('kg')
    const result = text(HeadlinePrice, batch())
    expect(result).toContain('Price of a trimmed kilogram, so far$6.48$2.94 a pound')
  })
})

describe('house against shop', () => {
  it('says cheaper by how much a pound, on the batch, a portion', () => {
    const result = text(AgainstShop, sliced())
    expect(result).toContain('▼ $5.06 a pound cheaper')
    expect(result).toContain('$40.50 less on this batch')
    expect(result).toContain('$0.55 less a portion')
    expect(result).toContain('It pays up to $3.50 a pound as bought.')
    expect(result).toContain('Your work earned $21.40 an hour.')
    expect(result).toContain('$6.00 for 12 oz: $8.00 a pound in the pack, $1.50 a portion')
    expect(result).not.toContain('still rises')
  })

  it('says what costs more without a minus sign, each figure with its own direction', () => {
    const dearer = {
      saved_per_lb: '-0.64',
      saved_on_batch: '-9.52',
      saved_per_portion: '0.10',
      is_cheaper: false,
    }
    const result = text(AgainstShop, { ...sliced(), shops: [shop(dearer)] })
    expect(result).toContain('▲ $0.64 a pound more')
    expect(result).toContain('$9.52 more on this batch')
    expect(result).toContain('$0.10 less a portion')
  })

  it('says even, nothing left, and nothing set', () => {
    expect(
      text(AgainstShop, { ...sliced(), shops: [shop({ saved_per_lb: '0.00', is_cheaper: false })] }),
    ).toContain('Costs the same')
    const gone = { saved_per_lb: null, saved_on_batch: null, saved_per_portion: null, is_cheaper: null }
    expect(text(AgainstShop, { ...sliced(), shops: [shop(gone)] })).toContain('Nothing left to compare')
    expect(text(AgainstShop, batch())).toContain('No shop pack is set')
  })

  const ahead = {
    saved_per_lb: null,
    saved_per_kg: null,
    saved_on_batch: null,
    saved_per_portion: null,
    is_cheaper: null,
    earned_per_hour: null,
    break_even: null,
  }
  it('compares nothing but the forecast until a batch is finished, and colors it only where it is sure', () => {
    const range = { saved_low: cost('-0.40', '-0.88'), saved_high: cost('1.20', '2.65') }
    const open = batch({ shops: [shop({ ...ahead, ...range, chance: 55 })] })
    const result = text(AgainstShop, open)
    expect(result).toContain('Beats the shop 55 times out of 100')
    expect(result).toContain('8 times out of 10: $0.40 more to $1.20 cheaper a sliced pound')
    expect(result).toContain('The price so far is for a trimmed pound and still rises.')
    expect(result).not.toMatch(/earned|on this batch|a pound cheaper/)
    const toneAt = (chance: number) =>
      mount(AgainstShop, {
        props: { batch: batch({ shops: [shop({ ...ahead, chance })] }), verdict: undefined },
        global: { components },
      })
        .get('.verdict')
        .classes()
    expect(toneAt(74)).toContain('open')
    expect(toneAt(75)).toContain('good')
    expect(toneAt(25)).toContain('dear')
    // the batch as recorded knows no chances: they come with the verdict
    expect(text(AgainstShop, batch({ shops: [shop(ahead)] }))).toContain('Comparing …')
    const known = verdict({ judged: judged({ shops: [shop(ahead)] }) })
    expect(text(AgainstShop, batch({ shops: [shop(ahead)] }), known)).toContain('No forecast yet')
  })

  it('says that a break-even below nothing is no price at all', () => {
    const lost = { ...sliced(), shops: [shop({ break_even: cost('-0.12', '-0.26') })] }
    expect(text(AgainstShop, lost)).toContain('It does not pay at any price of the meat.')
  })

  it('takes the kilogram’s difference in a kitchen that thinks in kilograms', () => {
    standIn('kg')
    expect(text(AgainstShop, sliced())).toContain('$11.16 a kilogram cheaper')
  })
})

describe('where the bill went', () => {
  it('lists each part, and a total the parts add up to, for a pound or for the batch', async () => {
    const shown = mount(BillParts, { props: { bill: judged().bill }, global: { components } })
    expect(shown.text()).toContain('lost to the trim$1.42')
    expect(shown.text()).toContain('all$3.42')
    await shown.find('input[value="on_batch"]').setValue(true)
    expect(shown.text()).toContain('all$20.50')
    expect(mount(BillParts, { props: { bill: null }, global: { components } }).text()).toContain(
      'Nothing is left',
    )
  })

  it('is of the kilogram in a kitchen that thinks in kilograms', () => {
    standIn('kg')
    const shown = mount(BillParts, { props: { bill: judged().bill }, global: { components } }).text()
    expect(shown).toContain('a kilogram')
    expect(shown).toContain('lost to the trim$3.13')
    expect(shown).not.toContain('pound')
  })
})

describe('a figure that is asked', () => {
  const asked = (figure: string, shop?: number) => {
    const known = { verdict: ref(verdict()), batch: ref(batch({ log: [entry(1)] })) }
    const place = defineComponent({
      setup: () => {
        provideWhy(known)
        return () => h(WhyFigure, { figure, shop }, () => '15.50')
      },
    })
    return mount(place, { attachTo: document.body, global: { components } })
  }

  it('tells inputs, formula in words and the entries behind it', async () => {
    await asked('saved_on_batch', 0).get('button').trigger('click')
    const result = document.querySelector('[role="dialog"]')?.textContent?.replace(/\s+/g, ' ')
    expect(result).toContain("(shop's pound − house's pound) × weight of what is left")
    expect(result).toContain('6.00 lb, 2.722 kg')
    expect(result).toContain('entry 1, smoked')
  })

  it('is plain where there is nothing to tell', () => {
    expect(asked('portion').find('button').exists()).toBe(false)
  })
})
