/** More marks than this are counted, not listed. */
export const MOST_LISTED = 8

/** Marks of pieces in a line: "A · B", of many how many and from which to which; the lot alone is none. */
export function marksText(pieces: string[]): string {
  const marks = pieces.filter((mark) => mark !== 'lot')
  if (marks.length <= MOST_LISTED) return marks.join(' · ')
  return `${marks.length} pieces, ${marks[0] ?? ''} to ${marks.at(-1) ?? ''}`
}
