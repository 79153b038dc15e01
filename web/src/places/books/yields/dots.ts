import type { Schemas } from '@/shared/api/client'

type Sort = Schemas['SortOut']

/** A dot on a line of per cents: where it stands, and how far it moves aside for those beside it. */
export type Placed = { dot: Schemas['YieldDotOut']; x: number; aside: number }

/** The ends of the scale that all of `sorts` fit on, in whole fives of per cent. */
export function endsOf(sorts: Sort[]): [number, number] {
  const all = sorts.flatMap((sort) =>
    sort.parts.flatMap((part) => [
      ...part.dots.map((dot) => Number(dot.kept)),
      ...[part.spread.low, part.spread.high].filter((end) => end !== null).map(Number),
    ]),
  )
  if (!all.length) return [0, 100]
  const low = Math.floor((Math.min(...all) - 1) / 5) * 5
  const high = Math.ceil((Math.max(...all) + 1) / 5) * 5
  // nothing that is only taken from keeps more than all of it
  return [Math.max(low, 0), Math.max(...all) <= 100 ? Math.min(high, 100) : high]
}

/** Ticks of the scale, at most seven, each a whole five. */
export function ticksOf([low, high]: [number, number]): number[] {
  const step = [5, 10, 20, 25, 50].find((size) => (high - low) / size <= 7) ?? 50
  const first = Math.ceil(low / step) * step
  return Array.from({ length: Math.floor((high - first) / step) + 1 }, (_, at) => first + at * step)
}

/** Dots side by side: one that would cover another moves up, down, up further, in turn; the last drawn last. */
export function placeDots(
  dots: Schemas['YieldDotOut'][],
  x: (kept: number) => number,
  wide: number,
): Placed[] {
  const placed: Placed[] = []
  for (const dot of dots) {
    const at = x(Number(dot.kept))
    const near = placed.filter((other) => Math.abs(other.x - at) < wide).map((other) => other.aside)
    const steps = [0, -1, 1, -2, 2]
    placed.push({ dot, x: at, aside: steps.find((step) => !near.includes(step)) ?? 0 })
  }
  return placed
}
