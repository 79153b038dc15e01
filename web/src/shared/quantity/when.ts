import type { Order } from './typedTime'

type Form = Intl.DateTimeFormatOptions
/** How a country writes days and times; names of days and months are English everywhere. */
export type Calendar = { order: Order; clock: 12 | 24; week: number }
const NEUTRAL: Calendar = { order: 'dmy', clock: 24, week: 1 }
let calendar = NEUTRAL
/** From now on days and times are written as in the kitchen's country. */
export function setCalendar(rules: Calendar | null): void {
  calendar = rules ?? NEUTRAL
}
/** In which order figures of a day are read, and with which day a week begins (0: Sunday). */
export const calendarNow = (): Calendar => calendar

/** The kitchen's time zone; empty: this device's. */
let zone = ''
const made = new Map<string, Intl.DateTimeFormat>()
function format(form: Form, moment: Date, at = zone): string {
  const key = at + JSON.stringify(form)
  const known = made.get(key) ?? new Intl.DateTimeFormat('en-US', at ? { ...form, timeZone: at } : form)
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

const part = (moment: string, form: Form): string => formatOf(form, moment)
/** "2 Mar", or "Mar 2"; `month` may be long, and a year stand behind it. */
function dayWords(moment: string, month: 'short' | 'long' = 'short', hasYear = false): string {
  const [day, name] = [part(moment, { day: 'numeric' }), part(moment, { month })]
  const year = hasYear ? part(moment, { year: 'numeric' }) : ''
  if (calendar.order === 'dmy') return `${day} ${name}${year && ` ${year}`}`
  return `${name} ${day}${year && `, ${year}`}`
}
/** A weekday before a day: "Mon 2 Mar", or "Mon, Mar 2". */
const after = (weekday: string, words: string): string =>
  calendar.order === 'dmy' ? `${weekday} ${words}` : `${weekday}, ${words}`
const toText = (moment: Date | string): string => (typeof moment === 'string' ? moment : moment.toISOString())

/** "Thu" */
export const weekdayText = (moment: Date | string): string => part(toText(moment), { weekday: 'short' })
/** "2 Mar" */
export const dayText = (moment: string): string => dayWords(moment)
/** "14:02" as the country's clock has it: "2:02 PM". */
export function clockText(time: string): string {
  if (calendar.clock === 24 || !/^\d\d:\d\d$/.test(time)) return time
  const hour = Number(time.slice(0, 2))
  return `${hour % 12 || 12}:${time.slice(3, 5)} ${hour < 12 ? 'AM' : 'PM'}`
}
/** "14:02", or "2:02 PM" */
export const timeText = (moment: string): string =>
  clockText(new Date(wallOf(asDate(moment).getTime())).toISOString().slice(11, 16))
/** "14:02 and 15:10"; by a clock of twelve hours AM or PM is said once where it is the same. */
export function betweenText(from: string, to: string): string {
  const [half, other] = [from, to].map((text) => /\b[AP]M$/.exec(text)?.[0])
  return half && half === other ? `${from.slice(0, -3)} and ${to}` : `${from} and ${to}`
}
/** "2 Mar, 14:02" */
export const momentText = (moment: string): string => `${dayText(moment)}, ${timeText(moment)}`
/** "Mon 2 Mar, 14:02" */
export const weekMomentText = (moment: string): string => after(weekdayText(moment), momentText(moment))
/** "Thursday 12 March" */
export const longDayText = (moment: Date | string): string =>
  after(part(toText(moment), { weekday: 'long' }), dayWords(toText(moment), 'long'))
/** "Mon 2 Mar 2026" */
export const yearDayText = (day: string): string => after(weekdayText(day), dayWords(day, 'short', true))

/** "2 Mar", or "2 to 4 Mar" where a step took several days. */
export function spanText(first: string, last: string): string {
  const [from, to] = [dayText(first), dayText(last)]
  if (from === to) return to
  const isOneMonth = part(first, { month: 'short' }) === part(last, { month: 'short' })
  if (!isOneMonth) return `${from} to ${to}`
  const [early, late] = [part(first, { day: 'numeric' }), part(last, { day: 'numeric' })]
  return calendar.order === 'dmy' ? `${early} to ${to}` : `${from} to ${late}`
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
    new Intl.DateTimeFormat('en-US', {
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
