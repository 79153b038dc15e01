import { describe, expect, it } from 'vitest'
import { type Bar, daysFrom, layOut, partOf } from './lanes'

const first = '2026-11-27T00:00:00'
const at = (day: number, hour = 0): string => new Date(2026, 10, 27 + day, hour).toISOString()
const bar = (more: Partial<Bar>): Bar => ({
  code: 'B-02',
  name: 'Belly',
  marks: ['A'],
  kind: 'cure',
  words: 'cure',
  begins: at(0),
  ends: at(7),
  latest: null,
  is_planned: false,
  pieces: 1,
  points: [],
  ...more,
})

describe('the lanes', () => {
  it('draw a stay where its days are, cut off at the edges', () => {
    const [one, other] = layOut([bar({ begins: at(-3), ends: at(7) }), bar({ ends: at(99) })], first, 14)
    expect([one?.from, one?.to]).toEqual([0, 0.5])
    expect(other?.to).toBe(1)
  })

  it('put what lies there at one time into rows below each other, and what comes later beside it', () => {
    const bars = [
      bar({ ends: at(7) }),
      bar({ begins: at(2), ends: at(5) }),
      bar({ begins: at(7), ends: at(9) }),
    ]
    expect(layOut(bars, first, 14).map((one) => one.row)).toEqual([0, 1, 0])
  })

  it('go on to the edge without an end, and leave out what is over or not yet there', () => {
    expect(layOut([bar({ ends: null })], first, 14)[0]?.to).toBe(1)
    expect(layOut([bar({ is_planned: true, begins: at(-9), ends: at(-1) })], first, 14)).toEqual([])
    expect(layOut([bar({ begins: at(14) })], first, 14)).toEqual([])
  })

  it('show what lies there past its end today, and how long its window is', () => {
    const [late] = layOut([bar({ begins: at(-9), ends: at(-2), latest: at(7) })], first, 14)
    expect(late?.to).toBeGreaterThan(0)
    expect(late?.tail).toBe(0.5)
  })

  it('mark a planned hour as a part of its day, and tasks as points on the stay', () => {
    const [smoke] = layOut([bar({ is_planned: true, begins: at(7), ends: null })], first, 14)
    expect(Number(smoke?.to) - Number(smoke?.from)).toBeCloseTo(0.3 / 14)
    const points = [
      { at: at(3), words: 'Turn', is_late: false },
      { at: at(12), words: 'Smoke', is_late: false },
    ]
    expect(layOut([bar({ points })], first, 14)[0]?.points).toEqual([partOf(at(3), first, 14)])
  })

  it('count days by the calendar', () => {
    expect(daysFrom(first, 5).map((day) => day.getDate())).toEqual([27, 28, 29, 30, 1])
  })
})
