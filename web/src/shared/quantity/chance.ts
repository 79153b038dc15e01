/** How sure a forecast has to be, in percent, before it is shown as good or bad. */
const SURE = 75

/** "beats it 93 times out of 100"; where it is almost certain, no figure pretends to know more. */
export function chanceText(chance: number, what: string): string {
  if (chance > 98) return `almost certainly beats ${what}`
  if (chance < 2) return `hardly ever beats ${what}`
  return `beats ${what} ${chance} times out of 100`
}

export function chanceTone(chance: number | null | undefined): 'good' | 'dear' | 'open' {
  if (chance == null) return 'open'
  return chance >= SURE ? 'good' : chance <= 100 - SURE ? 'dear' : 'open'
}
