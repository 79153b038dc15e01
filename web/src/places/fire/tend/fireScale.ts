import { timeText } from '@/shared/quantity/when'
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
    .concat(live.by_hand.map((one) => one.degrees))
  const low = live.unit === 'F' ? 30 : 0
  const high = Math.max(...values, Number(live.pull_at ?? 0), low + 60) * 1.06
  const x = scaleLinear([0, end], [LEFT, right])
  const y = scaleLinear([low, high], [BOTTOM, TOP])
  return { x, y, right, now, end, low, high, at: (moment: string) => x(seconds(live.begun_at, moment)) }
}

export type LaidStage = { label: string; from: number; wide: number; is: 'over' | 'now' | 'ahead' }

type Stage = Live['stages'][number]

/** When a stage ends by its program, in seconds; null where nobody knows, or it is due already. */
function foresee(live: Live, minutes: string | null, begun: number): number | null {
  const planned = minutes === null ? 0 : begun + Number(minutes) * 60
  return !live.out_at && planned > seconds(live.begun_at, live.now) ? planned : null
}
/** When a stage ended, in seconds; null while it runs. */
function endOf(live: Live, stage: Stage): number | null {
  if (stage.ended_at) return seconds(live.begun_at, stage.ended_at)
  return live.out_at ? seconds(live.begun_at, live.now) : null
}

/** The bars of the stages: those that ran, the one that runs, and those whose beginning the program foresees. */
export function layStages(live: Live, { x, end }: ReturnType<typeof fireScale>): LaidStage[] {
  const laid: LaidStage[] = []
  let next: number | null = null
  for (const stage of live.stages) {
    const begun: number | null = stage.begun_at ? seconds(live.begun_at, stage.begun_at) : next
    if (begun === null || begun >= end) break
    next = foresee(live, stage.minutes, begun)
    const over = endOf(live, stage)
    const wide = x(Math.min(over ?? next ?? end, end)) - x(begun) - 2
    const runs = over === null ? 'now' : 'over'
    laid.push({
      label: stage.label,
      from: x(begun),
      wide: Math.max(wide, 2),
      is: stage.begun_at ? runs : 'ahead',
    })
  }
  return laid
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
    if (at > 0 && at < end) ticks.push({ at, text: timeText(moment.toISOString()) })
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
