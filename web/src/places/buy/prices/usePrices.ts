import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, type ProblemError, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'
import { useUnits } from '@/shared/quantity/useUnits'

export type Sort = Schemas['QuoteIn']['sort']
export type Item = Schemas['ItemOut']
export const sortWords: Record<Sort, string> = {
  meat: 'Raw meat',
  ingredient: 'Ingredients',
  packaging: 'Packaging',
  fuel: 'Fuel',
  by_product: 'What trim is worth',
  shop_pack: 'Shop packs',
}
export const sorts = Object.entries(sortWords).map(([value, word]) => ({ value: value as Sort, word }))

/** A page of the price list. */
export function usePrices(sort: Ref<Sort>, find: Ref<string>, page: Ref<number>) {
  const slug = useSlug()
  return useQuery<Schemas['PricesOut'], ProblemError>({
    queryKey: computed(() => ['prices', slug.value, sort.value, find.value, page.value]),
    placeholderData: keepPreviousData,
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/prices', {
          params: {
            path: { kitchen_slug: slug.value },
            query: { sort: sort.value, find: find.value, page: page.value },
          },
        }),
      ),
  })
}

/** One line of the price list with all that was ever noted of it. */
export function usePriceItem(id: Ref<number>) {
  const slug = useSlug()
  return useQuery<Schemas['ItemWholeOut'], ProblemError>({
    queryKey: computed(() => ['prices', slug.value, id.value]),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/prices/{item_id}', {
          params: { path: { kitchen_slug: slug.value, item_id: id.value } },
        }),
      ),
  })
}

/** A price of one unit in words: "$2.85 a pound", "$0.36 each". */
export function usePer() {
  const { costText, otherCostText, money, unit } = useUnits()
  const perText = (per: Schemas['PerUnit']): string =>
    per.weight ? `${costText(per.weight)}/${unit.value}` : `${money(per.each)} each`
  const otherText = (per: Schemas['PerUnit']): string => (per.weight ? otherCostText(per.weight) : '')
  return { perText, otherText }
}
