/** "beats it 93 times in 100"; where it is all but sure, no figure pretends to know more. */
export function chanceText(chance: number, what: string): string {
  if (chance > 98) return `all but surely beats ${what}`
  if (chance < 2) return `hardly ever beats ${what}`
  return `beats ${what} ${chance} times in 100`
}
