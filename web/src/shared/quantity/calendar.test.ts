import { afterEach, describe, expect, it } from 'vitest'
import { useSession } from '@/shared/api/useSession'
import { countryOf } from '@/shared/kitchen/regions'
import { kitchenInfo, sessionOf } from '@/shared/tests/samples'
import examples from './calendar.examples.json'
import { useUnits } from './useUnits'
import { betweenText, calendarNow, dayText, momentText, weekMomentText, yearDayText } from './when'

/** The server is held to the same examples (tests/server/test_calendar.py). */
const { session } = useSession()
function standIn(country: string): void {
  const rules = countryOf(country)
  const { currency = 'USD', decimal: decimal_sign = '.' } = rules ?? {}
  session.value = sessionOf({
    kitchens: [kitchenInfo({ country, currency, decimal_sign, time_zone: 'America/Chicago' })],
  })
}
afterEach(() => (session.value = null))

describe('a country’s calendar and money', () => {
  it.each(examples)('of $country', ({ country, ...words }) => {
    standIn(country)
    const moment = '2026-12-02T01:05:00Z'
    expect(dayText(moment)).toBe(words.day)
    expect(yearDayText('2026-12-01').replace(/^Tue,? /, '')).toBe(words.year_day)
    expect(momentText(moment)).toBe(words.moment)
    expect(weekMomentText(moment)).toBe(words.week_moment)
    expect(
      useUnits()
        .money('1234.50')
        .replace(/[\u00a0\u202f]/g, ' '),
    ).toBe(words.money)
  })

  it('says AM or PM once where both are the same', () => {
    expect(betweenText('2:52 PM', '3:50 PM')).toBe('2:52 and 3:50 PM')
    expect(betweenText('11:52 AM', '1:50 PM')).toBe('11:52 AM and 1:50 PM')
    expect(betweenText('14:52', '15:50')).toBe('14:52 and 15:50')
  })

  it('is not another kitchen’s', () => {
    standIn('US')
    expect(calendarNow()).toMatchObject({ order: 'mdy', clock: 12, week: 0 })
    session.value = null
    expect(calendarNow()).toMatchObject({ order: 'dmy', clock: 24, week: 1 })
  })

  it('keeps thousands together where their sign would be the decimal one', () => {
    session.value = sessionOf({ kitchens: [kitchenInfo({ country: 'US', decimal_sign: ',' })] })
    expect(useUnits().money('-1234.50')).toBe('−$1234,50')
  })
})
