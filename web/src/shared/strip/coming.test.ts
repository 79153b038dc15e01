import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { batch, forecast, standIn } from '@/shared/tests/samples'
import { drawFan, type Frame } from './geometry'
import StripAcross from './StripAcross.vue'
import StripDown from './StripDown.vue'

beforeEach(() => standIn('lb'))
const show = (component: object) =>
  mount(component, { props: { batch: { ...batch(), forecast: forecast() }, width: 900, chosen: null } })

describe('the steps to come', () => {
  it('fan out from the last price over the range of each', () => {
    const frame: Frame = {
      ...{ pitch: 100, thickness: 120, climb: 100, foot: 200, topPrice: 10, ease: 40, labelGap: 14 },
      down: false,
    }
    const fan = drawFan(2, 1, [{ low: 3, middle: 4, high: 5 }], frame)
    expect(fan.line).toBe('M100,180L140,160L200,160')
    expect(fan.area).toBe('M100,180L140,150L200,150L200,170L140,170L100,180Z')
    expect(drawFan(2, 1, [], frame)).toEqual({ line: '', area: '' })
  })

  it('stand pale across the page, with weight, ledger and the range of the last', () => {
    const strip = show(StripAcross)
    expect(
      strip
        .findAll('th')
        .map((head) => head.text())
        .at(-1),
    ).toBe('Smokedexpected')
    expect(strip.find('svg').text()).toContain('7.04')
    expect(strip.find('svg').text()).toContain('3.40 to 3.80')
    const rows = strip.findAll('tr.ledger').map((row) => row.findAll('td').at(-1)?.text())
    expect(rows).toEqual(['88.0 %', '70.4 %', '2.00', '–'])
    expect(strip.text()).toContain('0.88 ± 0.03: your last 4 hot smokes of this cut')
  })

  it('run on down a phone', () => {
    const strip = show(StripDown)
    expect(strip.findAll('li').at(-1)?.text()).toContain('88.0 % kept')
    expect(strip.find('svg').text()).toContain('3.60')
    expect(strip.text()).not.toContain('To come, or skip')
  })
})
