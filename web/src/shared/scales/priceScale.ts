/** Where things stand on the ladder of prices. Pure drawing: prices come computed; numbers here are pixels. */

import { scaleLinear } from 'd3-scale'

export type Scale = { low: number; high: number; at: (price: number) => number; ticks: number[] }

/** About so many steps from the lowest price to the highest. */
const TICKS = 6

/** A scale of round prices that takes all of `prices` in, `top` to `bottom` pixels. */
export function scaleFor(prices: number[], top: number, bottom: number): Scale {
  const [least, most] = [Math.min(...prices), Math.max(...prices)]
  const room = Math.max((most - least) * 0.16, most * 0.06, 0.04)
  const scale = scaleLinear([Math.max(0, least - room), most + room], [bottom, top]).nice(TICKS)
  const [low = 0, high = 0] = scale.domain()
  return { low, high, at: (price) => scale(price), ticks: scale.ticks(TICKS) }
}

/** Labels moved apart so that none is closer than `gap` to the next; the order stays. */
export function spreadLabels(wanted: number[], gap: number, top: number, bottom: number): number[] {
  const order = wanted.map((y, index) => ({ y, index })).sort((one, other) => one.y - other.y)
  let last = top - gap
  for (const label of order) last = label.y = Math.max(label.y, last + gap)
  let next = bottom + gap
  for (const label of [...order].reverse()) next = label.y = Math.min(label.y, next - gap)
  const placed = [...wanted]
  for (const label of order) placed[label.index] = label.y
  return placed
}
