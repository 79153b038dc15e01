import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, type ProblemError, type Schemas, take } from '@/shared/api/client'
import { renewShown } from '@/shared/api/renewShown'
import { useSlug } from '@/shared/api/useBatch'
import { useAsking } from '@/shared/asking/useAsking'
import { useWrite } from '@/shared/writing/useWrite'

export type MealIn = Schemas['MealIn']
export type Meal = Schemas['MealOut']
export type MealPage = Schemas['MealPage']
export type Meals = Schemas['MealsOut']
/** A plan as typed: nothing is left out. */
export type MealDraft = Required<MealIn>

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

export const blankMeal = (): MealDraft => ({
  name: '',
  day: dayAhead(14),
  at: '19:00',
  wants: [{ sort: 'dish', name: '', amount: '' }],
  way: '',
  cut: '',
  meat: '',
  price: '',
  pack: '',
  piece: '',
  sure: '90',
  reserve_hours: '',
  hours_a_day: '',
  loads: 1,
  is_weekly: false,
  put_away: false,
})

/** Whether enough is typed to work it out. */
export const isAskable = (meal: MealIn): boolean =>
  meal.way !== '' && meal.day !== '' && meal.wants.some((want) => want.name !== '' && want.amount !== '')

/** Every plan, and the jobs on the list. */
export function useMeals() {
  const kitchen_slug = useSlug()
  return useQuery<Meals, ProblemError>({
    queryKey: computed(() => ['meals', kitchen_slug.value]),
    enabled: computed(() => kitchen_slug.value !== ''),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/meals', {
          params: { path: { kitchen_slug: kitchen_slug.value } },
        }),
      ),
  })
}

/** One plan whole; none while it is new. */
export function useMeal(name: Ref<string>) {
  const kitchen_slug = useSlug()
  return useQuery<MealPage, ProblemError>({
    queryKey: computed(() => ['meal', kitchen_slug.value, name.value]),
    enabled: computed(() => kitchen_slug.value !== '' && name.value !== ''),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/meals/{name}', {
          params: { path: { kitchen_slug: kitchen_slug.value, name: name.value } },
        }),
      ),
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

/** Saving a plan, putting it on the list, ticking off its jobs. */
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
  const renew = (): void => renewShown(queries)
  return { saving, listing, ticking, renew }
}
