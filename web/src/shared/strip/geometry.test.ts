import { describe, expect, it } from 'vitest'
import {
  drawClimb,
  drawSteps,
  type Frame,
  lowestLabel,
  priceAcross,
  type Step,
  weightScale,
} from './geometry'

const frame: Frame = {
  pitch: 100,
  thickness: 120,
  climb: 90,
  foot: 400,
  topPrice: 10,
  ease: 40,
  labelGap: 14,
  down: false,
}
const peel = (weight: number, gain = false) => ({ material: 'water', name: 'water', weight, gain })
const step = (weightIn: number, weightOut: number, price: number | null, ...peels: Step['peels']): Step => ({
  weightIn,
  weightOut,
  price,
  peels,
})
const chain = [step(10, 10, 2), step(10, 8, 3, peel(1.5), peel(0.5)), step(8, 9, 5, peel(1, true))]

describe('the strip', () => {
  it('draws the heaviest weight at full thickness, gains included', () => {
    expect(weightScale(chain, frame)).toBe(12)
    expect(weightScale([step(10, 12, null)], frame)).toBe(10)
    expect(weightScale([step(0, 0, null)], frame)).toBe(0)
  })

  it('carries the ribbon from the weight before to the weight after', () => {
    expect(drawSteps(chain, frame)[1]?.ribbon).toBe(
      'M100,120C120,120,120,96,140,96C170,96,170,96,200,96L200,0C170,0,170,0,140,0C120,0,120,0,100,0Z',
    )
  })

  it('turns the same drawing by swapping along and across', () => {
    const turned = drawSteps(chain, { ...frame, down: true })[1]
    expect(turned?.ribbon).toBe(
      'M120,100C120,120,96,120,96,140C96,170,96,170,96,200L0,200C0,170,0,170,0,140C0,120,0,120,0,100Z',
    )
    expect(turned?.price).toEqual({ x: 400 + 27, y: 200 })
  })

  it('lets peels leave between the thickness after and before, labels never closer than the gap', () => {
    const [first, second] = drawSteps(chain, frame)[1]?.peels ?? []
    expect(first?.path).toMatch(/^M100,114C.*,100,96Z$/)
    expect(second?.path).toMatch(/^M100,120C.*,100,114Z$/)
    expect((second?.label.y ?? 0) - (first?.label.y ?? 0)).toBeGreaterThanOrEqual(14)
    expect(lowestLabel(drawSteps(chain, frame), frame)).toBe(second?.label.y)
  })

  it('draws a gain as a wedge, not as a band that leaves', () => {
    const drawing = drawSteps(chain, frame)[2]
    expect(drawing?.gain).toContain('M200,96C220,96,220,108,240,108')
    expect(drawing?.peels[0]?.path).toBe('')
    expect(drawSteps(chain, frame)[1]?.gain).toBeNull()
  })

  it('puts a dearer pound higher, from a foot of nothing', () => {
    expect(priceAcross(0, frame)).toBe(400)
    expect(priceAcross(10, frame)).toBe(310)
    const { line, area } = drawClimb(chain, frame)
    expect(line).toBe('M0,382L100,382L100,382L140,373L200,373L200,373L240,355L300,355')
    expect(area.endsWith('L0,400Z')).toBe(true)
  })

  it('leaves out what has no price', () => {
    expect(drawClimb([step(1, 1, null)], frame)).toEqual({ line: '', area: '' })
    expect(drawSteps([step(1, 1, null)], frame)[0]?.price).toBeNull()
  })
})
