type Form = Intl.DateTimeFormatOptions
const DAY: Form = { day: 'numeric', month: 'short' }
const CLOCK: Form = { hour: '2-digit', minute: '2-digit' }
const WEEKDAY: Form = { weekday: 'short' }
const LONG: Form = { weekday: 'long', day: 'numeric', month: 'long' }

/** The kitchen's time zone; empty: this device's. */
let zone = ''
const made = new Map<string, Intl.DateTimeFormat>()
function format(form: Form, moment: Date, at = zone): string {
  const key = at + JSON.stringify(form)
  const known = made.get(key) ?? new Intl.DateTimeFormat('en-GB', at ? { ...form, timeZone: at } : form)
  made.set(key, known)
  return known.format(moment)
}

/** From now on times are those of the kitchen's clock: `name` as in America/Chicago; empty: the device's. */
export function setZone(name: string): void {
  zone = name
  tellZone()
}

/** Tell the server by which clock days are to be printed: the kitchen's, else this device's. */
export function tellZone(): void {
  const named = zone || Intl.DateTimeFormat().resolvedOptions().timeZone
  document.cookie = `zone=${named};path=/;max-age=31536000;samesite=lax`
}

const isDay = (moment: string): boolean => /^\d{4}-\d\d-\d\d$/.test(moment)
/** A moment, or the middle of a bare day of this device's calendar: no day slips west of Greenwich. */
export const asDate = (moment: string): Date => new Date(isDay(moment) ? `${moment}T12:00` : moment)
/** A bare day is the same day by every clock. */
const formatOf = (form: Form, moment: string): string =>
  isDay(moment) ? format(form, new Date(`${moment}T12:00Z`), 'UTC') : format(form, asDate(moment))

/** "Thu" */
export const weekdayText = (moment: Date): string => format(WEEKDAY, moment)
/** "2 Mar" */
export const dayText = (moment: string): string => formatOf(DAY, moment)
/** "2 Mar, 14:02" */
export const momentText = (moment: string): string => formatOf({ ...DAY, ...CLOCK }, moment)
/** "Mon 2 Mar, 14:02" */
export const weekMomentText = (moment: string): string => `${formatOf(WEEKDAY, moment)} ${momentText(moment)}`
/** "14:02" */
export const timeText = (moment: string): string => formatOf(CLOCK, moment)
/** "Thursday 12 March" */
export const longDayText = (moment: Date): string => format(LONG, moment).replace(',', '')

/** "2 Mar", or "2 to 4 Mar" where a step took several days. */
export function spanText(first: string, last: string): string {
  const [from, to] = [dayText(first), dayText(last)]
  if (from === to) return to
  const [fromDay, fromMonth] = from.split(' ')
  return to.endsWith(` ${fromMonth}`) ? `${fromDay} to ${to}` : `${from} to ${to}`
}

/** Seconds as "2 h 05" or "40 min". */
export function hoursText(seconds: number): string {
  const minutes = Math.round(Math.abs(seconds) / 60)
  const hours = Math.floor(minutes / 60)
  return hours ? `${hours} h ${String(minutes % 60).padStart(2, '0')}` : `${minutes} min`
}

/** A moment by the kitchen's clock, as milliseconds of a clock that is never moved. */
function wallOf(moment: number): number {
  const form: Form = { year: 'numeric', month: 'numeric', day: 'numeric', hourCycle: 'h23', hour: 'numeric' }
  const key = `wall ${zone}`
  const known =
    made.get(key) ??
    new Intl.DateTimeFormat('en-GB', {
      ...form,
      minute: 'numeric',
      second: 'numeric',
      ...(zone ? { timeZone: zone } : {}),
    })
  made.set(key, known)
  const of = Object.fromEntries(known.formatToParts(moment).map(({ type, value }) => [type, Number(value)]))
  const { year = 0, month = 1, day = 1, hour = 0, minute = 0, second = 0 } = of
  return Date.UTC(year, month - 1, day, hour, minute, second)
}

/** The moment of a time typed by the kitchen's clock ("2026-03-02T14:02"), wherever this device is. */
export function momentTyped(typed: string): string {
  const wall = Date.parse(`${typed}Z`)
  // twice: across a night the clocks are changed the first guess is an hour off
  const first = wall - (wallOf(wall) - wall)
  return new Date(wall - (wallOf(first) - first)).toISOString()
}

/** The day of a moment by the kitchen's clock: "2026-03-02". */
export const dayOf = (moment: string | number): string =>
  new Date(wallOf(new Date(moment).getTime())).toISOString().slice(0, 10)
/** Today by the kitchen's clock. */
export const todayHere = (): string => dayOf(Date.now())
