/** What a kitchen's country usually uses; all of it can be chosen otherwise. */
export type Usual = { currency: string; unit: 'lb' | 'kg'; degrees: 'F' | 'C'; sign: '.' | ',' }
type Row = [country: string, code: string, currency: string, sign: '.' | ',', unit?: 'lb', degrees?: 'F']

const rows: Row[] = [
  ['Argentina', 'AR', 'ARS', ','],
  ['Australia', 'AU', 'AUD', '.'],
  ['Austria', 'AT', 'EUR', ','],
  ['Belgium', 'BE', 'EUR', ','],
  ['Brazil', 'BR', 'BRL', ','],
  ['Canada', 'CA', 'CAD', '.', 'lb', 'F'],
  ['Chile', 'CL', 'CLP', ','],
  ['Czechia', 'CZ', 'CZK', ','],
  ['Denmark', 'DK', 'DKK', ','],
  ['Finland', 'FI', 'EUR', ','],
  ['France', 'FR', 'EUR', ','],
  ['Germany', 'DE', 'EUR', ','],
  ['Greece', 'GR', 'EUR', ','],
  ['Hungary', 'HU', 'HUF', ','],
  ['Iceland', 'IS', 'ISK', ','],
  ['Ireland', 'IE', 'EUR', '.'],
  ['Italy', 'IT', 'EUR', ','],
  ['Japan', 'JP', 'JPY', '.'],
  ['Mexico', 'MX', 'MXN', '.'],
  ['Netherlands', 'NL', 'EUR', ','],
  ['New Zealand', 'NZ', 'NZD', '.'],
  ['Norway', 'NO', 'NOK', ','],
  ['Poland', 'PL', 'PLN', ','],
  ['Portugal', 'PT', 'EUR', ','],
  ['Romania', 'RO', 'RON', ','],
  ['South Africa', 'ZA', 'ZAR', '.'],
  ['South Korea', 'KR', 'KRW', '.'],
  ['Spain', 'ES', 'EUR', ','],
  ['Sweden', 'SE', 'SEK', ','],
  ['Switzerland', 'CH', 'CHF', '.'],
  ['United Kingdom', 'GB', 'GBP', '.'],
  ['United States', 'US', 'USD', '.', 'lb', 'F'],
]

export const countries = rows.map(([word, value]) => ({ word, value }))

/** What `country` (two letters) usually uses; null where it is none of these. */
export function usualOf(country: string): Usual | null {
  const row = rows.find(([, code]) => code === country)
  if (!row) return null
  const [, , currency, sign, unit, degrees] = row
  return { currency, unit: unit ?? 'kg', degrees: degrees ?? 'C', sign }
}

/** The country this device is set to, where it says one that is known here; else the United States. */
export function likelyCountry(language = navigator.language): string {
  const said = /[-_]([A-Z]{2})\b/.exec(language)?.[1] ?? ''
  return usualOf(said) ? said : 'US'
}

export const currencies = [...new Set(rows.map(([, , currency]) => currency))].sort()

/** Every time zone this browser knows. */
export const zones = (): string[] => Intl.supportedValuesOf('timeZone')
export const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone
