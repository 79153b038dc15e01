/** "$2.38 to $2.51", one of them where both are the same. */
export const rangeText = (low: string | null, high: string | null, show: (one: string) => string): string =>
  low === null || high === null ? 'not known' : low === high ? show(low) : `${show(low)} to ${show(high)}`
