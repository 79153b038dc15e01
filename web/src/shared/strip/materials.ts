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
}
export const colourOf = (material: string): string => colours[material] ?? '#B9A7C4'

/** One colour for each group of the bill. */
const groups: Record<string, { word: string; colour: string }> = {
  meat: { word: 'meat, as bought', colour: '#D9657A' },
  buying: { word: 'getting it home', colour: '#E5B0B9' },
  cure: { word: 'cure', colour: '#8FB8D6' },
  fuel: { word: 'fuel', colour: '#C99A5B' },
  packaging: { word: 'packaging', colour: '#6F8F8A' },
  other: { word: 'other things', colour: '#B9A7C4' },
  labour: { word: 'work', colour: '#20272A' },
  overhead: { word: 'overhead', colour: '#9AA39F' },
  credit: { word: 'worth back', colour: '#F1D9A6' },
}
export const groupOf = (group: string) => groups[group] ?? { word: group, colour: '#B9A7C4' }
