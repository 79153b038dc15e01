import { describe, expect, it, vi } from 'vitest'
import { standIn } from '@/shared/tests/samples'
import { dayOf, longDayText, momentTyped, setZone, spanText, tellZone } from './when'
import { useUnits, without } from './useUnits'
import { peelText } from '@/shared/strip/useStrip'

describe('what is printed', () => {
  it('names a day, or the days from first to last', () => {
    expect(spanText('2026-03-02T09:00:00', '2026-03-02T17:00:00')).toBe('2 Mar')
    expect(spanText('2026-03-02T09:00:00', '2026-03-04T17:00:00')).toBe('2 to 4 Mar')
    expect(spanText('2026-02-28T09:00:00', '2026-03-04T17:00:00')).toBe('28 Feb to 4 Mar')
    expect(longDayText(new Date('2026-03-12T09:00:00'))).toBe('Thursday 12 March')
  })

  it('tells the server by which clock its days go', () => {
    tellZone()
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
    expect(document.cookie.split('; ')).toContain(`zone=${zone}`)
  })

  it.each(['America/Los_Angeles', 'Pacific/Auckland', 'UTC'])(
    'keeps a bare day the same day in %s',
    async (zone) => {
      vi.stubEnv('TZ', zone)
      vi.resetModules()
      const { dayText } = await import('./when')
      expect(['2026-03-02', '2026-12-31'].map(dayText)).toEqual(['2 Mar', '31 Dec'])
      vi.unstubAllEnvs()
    },
  )

  it.each([
    // a time typed is one of the kitchen's clock, whatever this device's says
    ['America/Los_Angeles', '2026-07-01T14:02', '2026-07-01T21:02:00.000Z', '2026-07-01'],
    ['Pacific/Auckland', '2026-07-01T09:00', '2026-06-30T21:00:00.000Z', '2026-07-01'],
    ['UTC', '2026-07-01T14:02', '2026-07-01T14:02:00.000Z', '2026-07-01'],
    // on the nights the clocks are changed
    ['Europe/Lisbon', '2026-03-29T00:30', '2026-03-29T00:30:00.000Z', '2026-03-29'],
    ['Europe/Lisbon', '2026-03-29T03:30', '2026-03-29T02:30:00.000Z', '2026-03-29'],
    ['America/New_York', '2026-11-01T12:00', '2026-11-01T17:00:00.000Z', '2026-11-01'],
  ])('reads a time typed in %s', (zone, typed, moment, day) => {
    setZone(zone)
    expect(momentTyped(typed)).toBe(moment)
    expect(dayOf(moment)).toBe(day)
    setZone('')
  })

  it.each([
    ['USD', 'lb', '−$1.20'],
    ['EUR', 'kg', '−€1.20'],
    ['NOK', 'kg', '−NOK 1.20'],
  ] as const)('prints money as its kitchen does: %s', (currency, unit, printed) => {
    standIn(unit, currency)
    expect(useUnits().money('-1.20')).toBe(printed)
    expect(useUnits().isMetric.value).toBe(unit === 'kg')
  })

  it('keeps the figure whole where the room is short', () => {
    expect(peelText('water', '0.25', false, 20)).toBe('water .25')
    expect(peelText('water', '0.25', true, 20)).toBe('water +.25')
    expect(peelText('silver skin', '1.05', false, 10)).toBe('silv… 1.05')
    expect(without('-1.20')).toBe('1.20')
  })
})
