import { scaleLinear } from 'd3-scale'
import type { Hanging } from './useChamber'

export const [LEFT, TOP, BOTTOM] = [52, 20, 330]
/** Rose, dark rose and grey-green by turns, each with a label of its own. */
export const colors = ['#8E1F38', '#B5475F', '#4F6F6A', '#7A4D0C'] as const
export const colorOf = (index: number): string => colors[index % colors.length] ?? colors[0]

/** Days to the right, loss downwards, as far as the last bar reaches. */
export function lossScale(hanging: Hanging[], wide: number) {
  const right = wide - 14
  const days =
    Math.max(7, ...hanging.map((one) => Math.max(one.day, Math.min(one.high_day ?? 0, one.day + 200)))) * 1.06
  const most = Math.max(20, ...hanging.flatMap((one) => [Number(one.target), Number(one.lost)])) + 6
  const x = scaleLinear([0, days], [LEFT, right])
  const y = scaleLinear([0, most], [TOP, BOTTOM])
  return { x, y, right, days, most }
}

/** A line through days and losses. */
export function path(
  points: { day: number; lost: number }[],
  x: (day: number) => number,
  y: (lost: number) => number,
): string {
  return points
    .map((one, index) => `${index ? 'L' : 'M'}${x(one.day).toFixed(1)} ${y(one.lost).toFixed(1)}`)
    .join('')
}
