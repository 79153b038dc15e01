/** Heights for labels that would lie on each other, in the order of `wanted`. */
export function apart(wanted: number[], by: number): number[] {
  const order = wanted.map((_, index) => index).sort((a, b) => (wanted[a] ?? 0) - (wanted[b] ?? 0))
  const placed = [...wanted]
  let before = -Infinity
  for (const index of order) {
    placed[index] = Math.max(wanted[index] ?? 0, before + by)
    before = placed[index] ?? before
  }
  return placed
}
