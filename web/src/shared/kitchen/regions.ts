import rows from '#countries'
import type { Calendar } from '@/shared/quantity/when'

/**
 * How a country writes days, times and money, and what its kitchens usually use; all of it can be chosen
 * otherwise. The table is the server's own.
 */
export type Country = Calendar & {
  name: string
  code: string
  currency: string
  sign: string
  digits: number
  symbol: 'before' | 'after'
  decimal: '.' | ','
  group: string
  unit: 'lb' | 'kg'
  degrees: 'F' | 'C'
  paper: 'letter' | 'a4'
}
const table = rows as Country[]

export const countries = table.map(({ name, code }) => ({ word: name, value: code }))

/** The country of two letters; null where it is none of these. */
export const countryOf = (code: string): Country | null => table.find((one) => one.code === code) ?? null

/** What stands before money of `currency`: its sign, or its code and a space. */
export const signOf = (currency: string): string =>
  table.find((one) => one.currency === currency && one.sign)?.sign ?? `${currency} `

/** The country this device is set to, where it says one that is known here; else the United States. */
export function likelyCountry(language = navigator.language): string {
  const said = /[-_]([A-Z]{2})\b/.exec(language)?.[1] ?? ''
  return countryOf(said) ? said : 'US'
}

export const currencies = [...new Set(table.map(({ currency }) => currency))].sort()

/** Every time zone this browser knows. */
export const zones = (): string[] => Intl.supportedValuesOf('timeZone')
export const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone
