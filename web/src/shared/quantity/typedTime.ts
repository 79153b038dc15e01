/** Days and times as a cook types them. A day is "2026-03-02", a time "14:02"; null: it is neither. */

export type Order = 'dmy' | 'mdy' | 'ymd'
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const DAY_MS = 86_400_000

const twoFigures = (number: number): string => String(number).padStart(2, '0')
function dayFrom(year: number, month: number, day: number): string | null {
  const made = new Date(Date.UTC(year, month - 1, day, 12))
  if (Number.isNaN(made.getTime())) return null
  const isReal = made.getUTCMonth() === month - 1 && made.getUTCDate() === day && year >= 2000 && year < 2200
  return isReal ? made.toISOString().slice(0, 10) : null
}

/** So many days later. */
export const later = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T12:00Z`) + days * DAY_MS).toISOString().slice(0, 10)

/** Without a year it is the nearest such day to today. */
function nearest(today: string, month: number, day: number): string | null {
  const year = Number(today.slice(0, 4))
  const distance = (one: string): number => Math.abs(Date.parse(one) - Date.parse(today))
  const found = [year - 1, year, year + 1].flatMap((one) => dayFrom(one, month, day) ?? [])
  return found.sort((one, other) => distance(one) - distance(other))[0] ?? null
}

/** Figures in the order of the country; a year of four figures at the front is always a year. */
function ofFigures(figures: string[], order: Order, today: string): string | null {
  const inOrder = figures[0]?.length === 4 ? 'ymd' : figures.length === 2 ? order.replace('y', '') : order
  if (figures.length !== inOrder.length) return null
  const of = (part: string): number => Number(figures[inOrder.indexOf(part)])
  if (figures.length === 2) return nearest(today, of('m'), of('d'))
  return dayFrom(of('y') < 100 ? 2000 + of('y') : of('y'), of('m'), of('d'))
}

/** A month in letters, its day and perhaps a year in figures. */
function ofWords(text: string, figures: string[], today: string): string | null {
  const names = (text.match(/[a-z]+/g) ?? []).map((word) => MONTHS.indexOf(word.slice(0, 3)) + 1)
  const [month, ...others] = names.filter((at) => at > 0)
  const day = Number(figures.find((one) => one.length < 3))
  const year = figures.find((one) => one.length === 4)
  if (!month || others.length) return null
  return year ? dayFrom(Number(year), month, day) : nearest(today, month, day)
}

/** "3/2", "3/2/26", "2.3.2026", "2026-03-02", "Mar 2", "Mon, 2 March 2026", "today", "tomorrow". */
export function readDay(typed: string, order: Order, today: string): string | null {
  const text = typed.trim().toLowerCase()
  const near = ['yesterday', 'today', 'tomorrow'].indexOf(text)
  if (near >= 0) return later(today, near - 1)
  const figures = text.match(/\d+/g) ?? []
  return /[a-z]/.test(text) ? ofWords(text, figures, today) : ofFigures(figures, order, today)
}

/** "7", "7 pm", "7:30 PM", "19:00", "1900". */
export function readTime(typed: string): string | null {
  const found = /^(\d{1,2})(?:[:.h]?(\d{2}))?\s*(a|p)?\.?m?\.?$/.exec(typed.trim().toLowerCase())
  if (!found) return null
  const [, hours = '', minutes = '0', half] = found
  const hour = half ? (Number(hours) % 12) + (half === 'p' ? 12 : 0) : Number(hours)
  const isReal = Number(minutes) < 60 && (half ? Number(hours) >= 1 && Number(hours) <= 12 : hour < 24)
  return isReal ? `${twoFigures(hour)}:${twoFigures(Number(minutes))}` : null
}
