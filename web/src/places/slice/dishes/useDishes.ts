import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { useQueryClient } from '@tanstack/vue-query'
import { type Ref } from 'vue'
import { api, type Schemas, take } from '@/shared/api/client'
import { renewShown } from '@/shared/api/renewShown'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'
import type { FileIn } from '@/shared/writing/readFile'
import { useWrite } from '@/shared/writing/useWrite'

export type DishIn = Schemas['DishIn']
export type PartIn = Schemas['DishPartIn']
export type DishPage = Schemas['DishPage']
export type Dishes = Schemas['DishesOut']

export const sorts: { value: PartIn['sort']; word: string }[] = [
  { value: 'larder', word: 'from the larder' },
  { value: 'price', word: 'from the price list' },
  { value: 'dish', word: 'another dish' },
  { value: 'own', word: 'something else' },
]

export const blankPart = (sort: PartIn['sort'] = 'larder'): PartIn => ({
  sort,
  name: '',
  amount: '',
  is_cooked: false,
  kept: '',
  cost: '',
})

/** Every dish with what a plate costs now. */
export function useDishes() {
  return useKitchenQuery('dishes', '/dishes')
}

/** One dish whole. */
export function useDish(name: Ref<string>) {
  return useKitchenQuery('dish', '/dishes/{name}', () => ({ path: { name: name.value } }))
}

/** What a dish as typed would cost. */
export function useDishPreview(body: () => DishIn | null) {
  const kitchen_slug = useSlug()
  return useAsking('dish', body, (now) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/previews/dishes', {
        params: { path: { kitchen_slug: kitchen_slug.value } },
        body: now,
      }),
    ),
  ).last
}

/** Saving dishes and aims, serving plates. */
export function useDishWrites(typed: () => unknown = () => null) {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  const path = () => ({ kitchen_slug: kitchen_slug.value })
  const header = (key: string) => ({ 'Idempotency-Key': key })
  const saving = useWrite<DishIn, Dishes>(
    'dish',
    (body, key) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/dishes', {
          params: { path: path(), header: header(key) },
          body,
        }),
      ),
    typed,
  )
  const serving = useWrite<{ name: string; body: Schemas['PlatesIn'] }, DishPage>(
    'plates',
    ({ name, body }, key) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/dishes/{name}/plates', {
          params: { path: { ...path(), name }, header: header(key) },
          body,
        }),
      ),
    typed,
  )
  const looking = useWrite<string, DishPage>('dish-look', (name, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/dishes/{name}/looks', {
        params: { path: { ...path(), name }, header: header(key) },
      }),
    ),
  )
  const canceling = useWrite<{ id: number; reason: string }, Dishes>('cancel-plates', ({ id, reason }, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/platings/{plating_id}/cancel', {
        params: { path: { ...path(), plating_id: id }, header: header(key) },
        body: { reason },
      }),
    ),
  )
  const aiming = useWrite<Schemas['AimsIn'], Dishes>(
    'dish-aims',
    (body, key) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/dish-aims', {
          params: { path: path(), header: header(key) },
          body,
        }),
      ),
    typed,
  )
  const importing = useWrite<FileIn, Dishes>('dish-import', (body, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/dish-imports', {
        params: { path: path(), header: header(key) },
        body,
      }),
    ),
  )
  return { saving, serving, looking, importing, canceling, aiming, renew: () => renewShown(queries) }
}
