const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
const dayAndTime = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})
const weekday = new Intl.DateTimeFormat('en-GB', { weekday: 'short' })
const longDay = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })

/** Tell the server by which clock days are to be printed: this device's. */
export function tellZone(): void {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
  document.cookie = `zone=${zone};path=/;max-age=31536000;samesite=lax`
}

/** A moment, or the middle of a bare day of this device's calendar: no day slips west of Greenwich. */
export const asDate = (moment: string): Date =>
  new Date(/^\d{4}-\d\d-\d\d$/.test(moment) ? `${moment}T12:00` : moment)

/** "Thu" */
export const weekdayText = (moment: Date): string => weekday.format(moment)
/** "2 Mar" */
export const dayText = (moment: string): string => day.format(asDate(moment))
/** "2 Mar, 14:02" */
export const momentText = (moment: string): string => dayAndTime.format(asDate(moment))
/** "Mon 2 Mar, 14:02" */
export const weekMomentText = (moment: string): string =>
  `${weekday.format(asDate(moment))} ${momentText(moment)}`
/** "14:02" */
export const timeText = (moment: string): string =>
  asDate(moment).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
/** "Thursday 12 March" */
export const longDayText = (moment: Date): string => longDay.format(moment).replace(',', '')

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
