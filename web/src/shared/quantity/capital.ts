/** With a capital letter first, as a heading or sentence begins. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)
