import { askKitchen, kitchenKey, useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { useQueries, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, type Schemas, take } from '@/shared/api/client'
import { renewShown } from '@/shared/api/renewShown'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'
import { useWrite } from '@/shared/writing/useWrite'

export type MealIn = Schemas['MealIn']
export type Meal = Schemas['MealOut']
export type MealPage = Schemas['MealPage']
export type Meals = Schemas['MealsOut']
/** How one thing is made, as typed. */
export type MakeDraft = Required<Schemas['MakeIn']>
/** A plan as typed: nothing is left out. */
export type MealDraft = Required<Omit<MealIn, 'makes'>> & { makes: MakeDraft[] }

/** A day as a form has it: "2026-12-05". */
export function isoDay(day: Date): string {
  const two = (part: number): string => String(part).padStart(2, '0')
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`
}

/** A day to come, as a form has it. */
export function dayAhead(days: number): string {
  const day = new Date()
  day.setDate(day.getDate() + days)
  return isoDay(day)
}

export const blankMake = (): MakeDraft => ({
  product: '',
  way: '',
  cut: '',
  meat: '',
  price: '',
  pack: '',
  piece: '',
  places: 1,
  loads: 1,
  days_early: 0,
})

export const blankMeal = (): MealDraft => ({
  name: '',
  day: dayAhead(14),
  at: '19:00',
  wants: [{ sort: 'dish', name: '', amount: '' }],
  makes: [blankMake()],
  sure: '90',
  reserve_hours: '',
  hours_a_day: '',
  leave_out: [],
  is_weekly: false,
  put_away: false,
})

/** A plan as it was sent, as a form has it. */
export const draftOf = (meal: MealIn): MealDraft => ({
  ...blankMeal(),
  ...meal,
  makes: (meal.makes ?? []).map((make) => ({ ...blankMake(), ...make })),
})

/** Whether enough is typed to work it out. */
export const isAskable = (meal: MealDraft): boolean =>
  meal.day !== '' &&
  meal.makes.some((make) => make.way !== '') &&
  meal.wants.some((want) => want.name !== '' && want.amount !== '')

/** Every plan, and the jobs on the list. */
export function useMeals() {
  return useKitchenQuery('meals', '/meals')
}

/** One plan whole; none while it is new. */
export function useMeal(name: Ref<string>) {
  return useKitchenQuery('meal', '/meals/{name}', () => ({ path: { name: name.value } }), {
    enabled: () => name.value !== '',
  })
}

/** Several plans whole, in their order; what is not there yet is undefined. */
export function useMealPages(names: Ref<string[]>): Ref<(MealPage | undefined)[]> {
  const kitchen_slug = useSlug()
  return useQueries({
    queries: computed(() =>
      names.value.map((name) => ({
        queryKey: kitchenKey('meal', kitchen_slug.value, [name]),
        enabled: kitchen_slug.value !== '',
        queryFn: () => askKitchen(kitchen_slug.value, '/meals/{name}', { path: { name } }),
      })),
    ),
    combine: (results) => results.map((one) => one.data),
  })
}

/** A plan as typed, worked out. */
export function useMealPreview(body: () => MealIn | null) {
  const kitchen_slug = useSlug()
  return useAsking('meal', body, (now) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/previews/meals', {
        params: { path: { kitchen_slug: kitchen_slug.value } },
        body: now,
      }),
    ),
  )
}

/** Saving a plan, putting it on the list, ticking off its jobs, naming the batches it is made in. */
export function useMealWrites(typed: () => unknown = () => null) {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  const header = (key: string) => ({ 'Idempotency-Key': key })
  const saving = useWrite<MealIn, Meals>(
    'meal',
    (body, key) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/meals', {
          params: { path: { kitchen_slug: kitchen_slug.value }, header: header(key) },
          body,
        }),
      ),
    typed,
  )
  const listing = useWrite<{ name: string }, MealPage>('meal-listed', ({ name }, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/meals/{name}/listed', {
        params: { path: { kitchen_slug: kitchen_slug.value, name }, header: header(key) },
      }),
    ),
  )
  const ticking = useWrite<{ uid: string; sort: 'done' | 'open' }, Meals>('meal-job', ({ uid, sort }, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/meal-jobs/{uid}/news', {
        params: { path: { kitchen_slug: kitchen_slug.value, uid }, header: header(key) },
        body: { sort },
      }),
    ),
  )
  const naming = useWrite<{ name: string; product: string; batch: string }, MealPage>(
    'meal-made',
    ({ name, ...body }, key) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/meals/{name}/made', {
          params: { path: { kitchen_slug: kitchen_slug.value, name }, header: header(key) },
          body,
        }),
      ),
  )
  const renew = (): void => renewShown(queries)
  return { saving, listing, ticking, naming, renew }
}
