/** One colour for each material, everywhere. */
const colours: Record<string, string> = {
  lean: '#D9657A',
  fat: '#F1D9A6',
  skin: '#C99A5B',
  bone: '#D8D3C4',
  water: '#8FB8D6',
  ends: '#E5B0B9',
  waste: '#9AA39F',
  loss: '#9AA39F',
  other: '#B9A7C4',
  pieces: '#EFC9D0',
  discard: '#5A6461',
}
export const colourOf = (material: string): string => colours[material] ?? '#B9A7C4'

/** One colour for each part of the bill: meat, what shrink took of it, and the groups by their word. */
const parts: Record<string, string> = {
  cure: '#8FB8D6',
  fuel: '#C99A5B',
  packaging: '#6F8F8A',
  work: '#20272A',
  overhead: '#9AA39F',
}
const shrinks = ['#E5B0B9', '#EBC0C7', '#F0CFD5', '#F4DCE0']
export function colourOfPart(sort: string, label: string): string {
  if (sort === 'meat') return '#D9657A'
  if (sort === 'shrink') return shrinks[label.length % shrinks.length] ?? '#E5B0B9'
  return parts[label] ?? (label.startsWith('worth') ? '#F1D9A6' : '#B9A7C4')
}
