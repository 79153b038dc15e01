import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, type Batch, type ProblemError, take, type Today, type Verdict } from './client'
import { renewShown } from './renewShown'
import { useSession } from './useSession'

/** The kitchen's name in addresses. */
export function useSlug() {
  const { kitchen } = useSession()
  return computed(() => kitchen.value?.slug ?? '')
}

/** One batch, whole; kept up to date by `put` after a write. */
export function useBatch(code: Ref<string>) {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  const queryKey = computed(() => ['batch', kitchen_slug.value, code.value])
  const query = useQuery<Batch, ProblemError>({
    queryKey,
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/batches/{code}', {
          params: { path: { kitchen_slug: kitchen_slug.value, code: code.value } },
        }),
      ),
  })
  function put(batch: Batch): void {
    queries.setQueryData(queryKey.value, batch)
    renewShown(queries)
  }
  return { ...query, put }
}

/** One batch's verdict, whole. */
export function useVerdict(code: Ref<string>) {
  const kitchen_slug = useSlug()
  return useQuery<Verdict, ProblemError>({
    queryKey: computed(() => ['verdict', kitchen_slug.value, code.value]),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/batches/{code}/verdict', {
          params: { path: { kitchen_slug: kitchen_slug.value, code: code.value } },
        }),
      ),
  })
}

/** What is under way, and how many pieces hang where. */
export function useToday() {
  const kitchen_slug = useSlug()
  return useQuery<Today, ProblemError>({
    queryKey: computed(() => ['today', kitchen_slug.value]),
    enabled: computed(() => kitchen_slug.value !== ''),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/today', {
          params: { path: { kitchen_slug: kitchen_slug.value } },
        }),
      ),
  })
}
