import type { Schemas } from '@/shared/api/client'

export type Bar = Schemas['StayOut']
/** A bar as drawn: from and to as parts of the days shown, the row it lies in, and what is known of its end. */
export type Drawn = { bar: Bar; from: number; to: number; tail: number; row: number; points: number[] }

const DAY = 864e5
/** A stay without an end is drawn to the edge; one that is a moment alone takes so much of a day. */
const LEAST_DAYS = 0.3

/** Where a moment falls among the days shown: 0 at the left edge, 1 at the right. */
export const partOf = (moment: string, first: string, days: number): number =>
  (+new Date(moment) - +new Date(first)) / (days * DAY)

/** The bars that fall within the days shown, each in the first row where it has room. */
export function layOut(bars: Bar[], first: string, days: number): Drawn[] {
  const least = LEAST_DAYS / days
  const rows: number[] = []
  const drawn: Drawn[] = []
  for (const bar of bars) {
    const begins = partOf(bar.begins, first, days)
    const isMoment = bar.is_planned && !bar.ends
    const ends = bar.ends ? partOf(bar.ends, first, days) : isMoment ? begins + least : 1
    const now = bar.is_planned ? -1 : 0
    // what lies there still lies there today, also past its end
    const to = Math.max(ends, begins + least, now + least)
    if (begins >= 1 || to <= 0) continue
    const tail = Math.min(1, Math.max(to, bar.latest ? partOf(bar.latest, first, days) : to))
    const from = Math.max(0, begins)
    let row = rows.findIndex((end) => end <= from + 1e-9)
    if (row < 0) row = rows.length
    rows[row] = tail
    const points = bar.points
      .map((point) => partOf(point.at, first, days))
      .filter((at) => at >= from && at <= Math.max(tail, to))
    drawn.push({ bar, from, to: Math.min(1, to), tail, row, points })
  }
  return drawn
}

/** The beginning of each day shown. */
export function daysFrom(first: string, days: number): Date[] {
  const begin = new Date(first)
  return Array.from({ length: days }, (_, at) => {
    const day = new Date(begin)
    // by the calendar, not by hours: one day of the year has 23 of them
    day.setDate(day.getDate() + at)
    return day
  })
}
