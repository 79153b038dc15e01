import { scaleFor } from '@/shared/scales/priceScale'

export type CaseScale = { at: (price: number) => number; ticks: number[]; decimals: number }

/** The scale of prices the offers and the shop's kinds share, from left to right over `width` pixels. */
export function caseScale(prices: number[], width: number): CaseScale {
  const known = prices.filter((price) => Number.isFinite(price))
  const scale = scaleFor(known.length ? known : [0, 10], width - 20, 20)
  const fits = Math.max(2, Math.floor(width / 58))
  const step = Math.ceil(scale.ticks.length / fits)
  const decimals = scale.high - scale.low < 3 ? 2 : 0
  return { at: scale.at, ticks: scale.ticks.filter((_, place) => place % step === 0), decimals }
}
