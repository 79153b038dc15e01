import { describe, expect, it } from 'vitest'
import { later, readDay, readTime } from './typedTime'

const today = '2026-12-02'

describe('a day as typed', () => {
  it.each([
    ['2026-03-02', '2026-03-02'],
    ['Mar 2, 2026', '2026-03-02'],
    ['Mon 2 Mar 2026', '2026-03-02'],
    ['Thursday, 12 march 2026', '2026-03-12'],
    ['tomorrow', '2026-12-03'],
    [' Today ', '2026-12-02'],
    ['yesterday', '2026-12-01'],
    ['2027/1/5', '2027-01-05'],
  ])('%s is %s everywhere', (typed, day) => {
    for (const order of ['dmy', 'mdy', 'ymd'] as const) expect(readDay(typed, order, today)).toBe(day)
  })

  it.each([
    ['3/2/2026', '2026-02-03', '2026-03-02'],
    ['3.2.26', '2026-02-03', '2026-03-02'],
    ['12/1', '2027-01-12', '2026-12-01'],
  ])('%s is %s by day, %s by month', (typed, byDay, byMonth) => {
    expect(readDay(typed, 'dmy', today)).toBe(byDay)
    expect(readDay(typed, 'mdy', today)).toBe(byMonth)
  })

  it('without a year is the nearest one', () => {
    expect(readDay('Dec 30', 'mdy', '2027-01-02')).toBe('2026-12-30')
    expect(readDay('1/2', 'ymd', today)).toBe('2027-01-02')
  })

  it.each(['', 'soon', '31/2/2026', '2026-13-01', '5', '1/2/3/4', 'Mar', 'Mar Apr 2', 'Feb 30', '3/2/1999'])(
    '%s is none',
    (typed) => expect(readDay(typed, 'dmy', today)).toBeNull(),
  )

  it('goes on across a month', () => {
    expect(later('2026-02-28', 1)).toBe('2026-03-01')
    expect(later('2026-03-01', -1)).toBe('2026-02-28')
  })
})

describe('a time as typed', () => {
  it.each([
    ['7', '07:00'],
    ['7 pm', '19:00'],
    ['7:30 PM', '19:30'],
    ['12 am', '00:00'],
    ['12:15 p.m.', '12:15'],
    ['19:05', '19:05'],
    ['1905', '19:05'],
  ])('%s is %s', (typed, time) => expect(readTime(typed)).toBe(time))

  it.each(['', '24:00', '13 pm', '0 am', '7:60', 'noon'])('%s is none', (typed) =>
    expect(readTime(typed)).toBeNull(),
  )
})
