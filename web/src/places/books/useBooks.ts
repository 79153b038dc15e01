import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { keepPreviousData } from '@tanstack/vue-query'
import { type Ref } from 'vue'

export type By = 'way' | 'step'
export type Part = 'none' | 'source' | 'season' | 'cook' | 'thickness' | 'inside'

/** Every batch a dot, by cut and way or by step. */
export function useYieldBook(by: Ref<By>, part: Ref<Part>) {
  return useKitchenQuery(
    ['books', 'yields'],
    '/books/yields',
    () => ({ query: { by: by.value, part: part.value } }),
    { placeholderData: keepPreviousData },
  )
}

/** What was out of the usual. */
export function useUnusualBook() {
  return useKitchenQuery(['books', 'unusual'], '/books/unusual')
}

/** Money of a year beside a kind of the shop's; empty: the latest year, the first kind. */
export function useMoneyBook(year: Ref<string>, kind: Ref<string>) {
  return useKitchenQuery(
    ['books', 'money'],
    '/books/money',
    () => ({
      query: { kind: kind.value, ...(year.value && { year: Number(year.value) }) },
      key: [year.value, kind.value],
    }),
    { placeholderData: keepPreviousData },
  )
}

/** Prices over time, and the house at today's. */
export function usePriceBook() {
  return useKitchenQuery(['books', 'prices'], '/books/prices')
}

/** How often each kind of forecast held. */
export function useForecastKinds() {
  return useKitchenQuery(['books', 'forecasts'], '/books/forecasts')
}
