import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, type ProblemError, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'

export type By = 'way' | 'step'
export type Part = 'none' | 'source' | 'season' | 'cook' | 'thickness' | 'inside'

/** Every batch a dot, by cut and way or by step. */
export function useYieldBook(by: Ref<By>, part: Ref<Part>) {
  const slug = useSlug()
  return useQuery<Schemas['YieldBookOut'], ProblemError>({
    queryKey: computed(() => ['books', 'yields', slug.value, by.value, part.value]),
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/books/yields', {
          params: { path: { kitchen_slug: slug.value }, query: { by: by.value, part: part.value } },
        }),
      ),
  })
}

/** What was out of the usual. */
export function useUnusualBook() {
  const slug = useSlug()
  return useQuery<Schemas['UnusualBookOut'], ProblemError>({
    queryKey: computed(() => ['books', 'unusual', slug.value]),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/books/unusual', {
          params: { path: { kitchen_slug: slug.value } },
        }),
      ),
  })
}

/** Money of a year beside a kind of the shop's; empty: the latest year, the first kind. */
export function useMoneyBook(year: Ref<string>, kind: Ref<string>) {
  const slug = useSlug()
  return useQuery<Schemas['MoneyOut'], ProblemError>({
    queryKey: computed(() => ['books', 'money', slug.value, year.value, kind.value]),
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/books/money', {
          params: {
            path: { kitchen_slug: slug.value },
            query: { kind: kind.value, ...(year.value && { year: Number(year.value) }) },
          },
        }),
      ),
  })
}

/** Prices over time, and the house at today's. */
export function usePriceBook() {
  const slug = useSlug()
  return useQuery<Schemas['PriceBookOut'], ProblemError>({
    queryKey: computed(() => ['books', 'prices', slug.value]),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/books/prices', {
          params: { path: { kitchen_slug: slug.value } },
        }),
      ),
  })
}

/** How often each kind of forecast held. */
export function useForecastKinds() {
  const slug = useSlug()
  return useQuery<Schemas['ForecastKindsOut'], ProblemError>({
    queryKey: computed(() => ['books', 'forecasts', slug.value]),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/books/forecasts', {
          params: { path: { kitchen_slug: slug.value } },
        }),
      ),
  })
}
