import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { keepPreviousData } from '@tanstack/vue-query'
import { type Ref } from 'vue'
import { type Schemas } from '@/shared/api/client'
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
  return useKitchenQuery(
    'prices',
    '/prices',
    () => ({ query: { sort: sort.value, find: find.value, page: page.value } }),
    { placeholderData: keepPreviousData },
  )
}

/** One line of the price list with all that was ever noted of it. */
export function usePriceItem(id: Ref<number>) {
  return useKitchenQuery('prices', '/prices/{item_id}', () => ({ path: { item_id: id.value } }))
}

/** A price of one unit in words: "$2.85 a pound", "$0.36 each". */
export function usePer() {
  const { costText, otherCostText, money, unit } = useUnits()
  const perText = (per: Schemas['PerUnit']): string =>
    per.weight ? `${costText(per.weight)}/${unit.value}` : `${money(per.each)} each`
  const otherText = (per: Schemas['PerUnit']): string => (per.weight ? otherCostText(per.weight) : '')
  return { perText, otherText }
}
