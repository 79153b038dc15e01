import { describe, expect, it } from 'vitest'
import { blankFire, fireBody } from './fireDraft'

describe('into the smoke', () => {
  const pieces = [
    { code: 'L-01', mark: 'A' },
    { code: 'L-01', mark: 'B' },
    { code: 'J-02', mark: 'lot' },
  ]
  const on = (rack: number, probe = '') => ({ isIn: true, probe, where: 'thick end', rack })

  it('sends what was chosen, racks filled from the left', () => {
    const chosen = { 'L-01 A': on(1, '1'), 'L-01 B': { ...on(1), isIn: false }, 'J-02': on(1, '2') }
    expect(fireBody(blankFire(), pieces, chosen).pieces).toEqual([
      { code: 'L-01', mark: 'A', rack: 1, slot: 1, probe: '1', where: 'thick end' },
      { code: 'J-02', mark: 'lot', rack: 1, slot: 2, probe: '2', where: 'thick end' },
    ])
  })

  it('leaves a piece where it hangs by the map, and fills the rack around what hangs there', () => {
    const lying = [
      { code: 'L-01', mark: 'B', level: 1, slot: 2 },
      { code: 'B-09', mark: 'A', level: 1, slot: 1 },
    ]
    const chosen = { 'L-01 A': on(1), 'L-01 B': on(1), 'J-02': on(2) }
    const { pieces: hung } = fireBody(blankFire(), pieces, chosen, lying)
    expect(hung.map((one) => [one.rack, one.slot])).toEqual([
      [1, 3],
      [1, 2],
      [2, 1],
    ])
  })

  it('says where a probe is only where there is one, and when the meal is by this clock', () => {
    const body = fireBody({ ...blankFire(), meal_at: '2026-11-26T19:00' }, pieces, { 'L-01 A': on(2) })
    expect(body.pieces[0]).toMatchObject({ rack: 2, slot: 1, probe: '', where: '' })
    expect(body.meal_at).toBe(new Date('2026-11-26T19:00').toISOString())
    expect(fireBody(blankFire(), pieces, {}).meal_at).toBeNull()
  })
})
