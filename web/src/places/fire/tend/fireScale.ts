import { scaleLinear } from 'd3-scale'
import type { Live } from '@/places/fire/useFires'

/** Seconds and degrees. */
export type Point = number[]
export const [LEFT, TOP, BOTTOM] = [44, 46, 350]
/** The drawing's width on a desk and on a phone: letters stay as large as they are. */
export const wideOf = (isPhone: boolean): number => (isPhone ? 390 : 800)

const seconds = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 1000

/** Where a moment and a temperature lie in the drawing of a fire: from its beginning to a little past what is ahead. */
export function fireScale(live: Live, wide: number) {
  const right = wide - 14
  const now = seconds(live.begun_at, live.now)
  const ahead = live.ready?.high && !live.out_at ? seconds(live.begun_at, live.ready.high) : 0
  const end = Math.max(now, Math.min(ahead, now + 20 * 3600), 1800) * 1.06
  const values = [live.air_points, ...live.curves.map((one) => one.points)]
    .flat()
    .flatMap((point) => (point ? [point[1] ?? 0] : []))
  const low = live.unit === 'F' ? 30 : 0
  const high = Math.max(...values, Number(live.pull_at ?? 0), low + 60) * 1.06
  const x = scaleLinear([0, end], [LEFT, right])
  const y = scaleLinear([low, high], [BOTTOM, TOP])
  return { x, y, right, now, end, low, high, at: (moment: string) => x(seconds(live.begun_at, moment)) }
}

/** Full hours of this device's clock within the drawing, few enough to be read. */
export function hourTicks(begun_at: string, end: number, most: number): { at: number; text: string }[] {
  const begun = new Date(begun_at)
  const step = Math.max(1, Math.ceil(end / 3600 / most))
  const first = new Date(begun)
  first.setMinutes(0, 0, 0)
  const ticks = []
  for (let hour = 1; hour <= end / 3600 + 1; hour += step) {
    const moment = new Date(first.getTime() + hour * 3_600_000)
    const at = (moment.getTime() - begun.getTime()) / 1000
    if (at > 0 && at < end)
      ticks.push({ at, text: moment.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }) })
  }
  return ticks
}

/** Lines through points, parted where there is a gap. */
export function lines(
  points: (Point | null)[],
  x: (at: number) => number,
  y: (of: number) => number,
): string {
  let path = ''
  let pen = 'M'
  for (const point of points) {
    if (point) path += `${pen}${x(point[0] ?? 0).toFixed(1)} ${y(point[1] ?? 0).toFixed(1)}`
    pen = point ? 'L' : 'M'
  }
  return path
}
