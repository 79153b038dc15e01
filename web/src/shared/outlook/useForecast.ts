import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, type Forecast, type ProblemError, type Schemas, take } from '@/shared/api/client'
import { renewShown } from '@/shared/api/renewShown'
import { useSlug } from '@/shared/api/useBatch'
import { useWays } from '@/shared/api/useWays'
import { useWrite } from '@/shared/writing/useWrite'

/** What is expected of a batch under way, anew after every entry (`seen`). */
export function useForecast(code: Ref<string>, seen: Ref<number | undefined>) {
  const slug = useSlug()
  const queryKey = computed(() => ['forecast', slug.value, code.value, seen.value])
  return useQuery<Forecast, ProblemError>({
    queryKey,
    enabled: computed(() => seen.value !== undefined),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/batches/{code}/forecast', {
          params: { path: { kitchen_slug: slug.value, code: code.value } },
        }),
      ),
  })
}

/** The kitchen's ways by name, and choosing one for a batch. */
export function useChooseWay(code: Ref<string>) {
  const slug = useSlug()
  const queries = useQueryClient()
  const ways = useWays()
  const made = useWrite<Schemas['ChooseWayIn'], Forecast>(`${code.value}:way`, (body, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/way', {
        params: { path: { kitchen_slug: slug.value, code: code.value }, header: { 'Idempotency-Key': key } },
        body,
      }),
    ),
  )
  const choose = (way: string): void =>
    void made.write({ way }, () => {
      void queries.invalidateQueries({ queryKey: ['forecast'] })
      void queries.invalidateQueries({ queryKey: ['batch'] })
      renewShown(queries)
    })
  return { ways, choose, problem: made.problem }
}
