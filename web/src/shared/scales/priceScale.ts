/** Where things stand on the ladder of prices. Pure drawing: prices come computed; numbers here are pixels. */

export type Rung = { key: string; name: string; text: string; price: number }
export type Scale = { low: number; high: number; at: (price: number) => number; ticks: number[] }

const STEPS = [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100]

/** A scale of round prices that takes all of `prices` in, `top` to `bottom` pixels. */
export function scaleFor(prices: number[], top: number, bottom: number): Scale {
  const [least, most] = [Math.min(...prices), Math.max(...prices)]
  const room = Math.max((most - least) * 0.16, most * 0.06, 0.04)
  const [from, to] = [Math.max(0, least - room), most + room]
  const step = STEPS.find((one) => (to - from) / one <= 7) ?? Math.ceil((to - from) / 7)
  const low = Math.max(0, Math.floor(from / step) * step)
  const high = Math.ceil(to / step) * step
  const count = Math.round((high - low) / step)
  return {
    low,
    high,
    at: (price) => bottom - ((price - low) / (high - low)) * (bottom - top),
    ticks: Array.from({ length: count + 1 }, (_, index) => low + index * step),
  }
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
