import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, type ProblemError, type Schemas, take } from './client'
import { useSlug } from './useBatch'

/** What lies where, what to thaw, what runs out. */
export function useLarder() {
  const kitchen_slug = useSlug()
  return useQuery<Schemas['LarderOut'], ProblemError>({
    queryKey: computed(() => ['larder', kitchen_slug.value]),
    enabled: computed(() => kitchen_slug.value !== ''),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/larder', {
          params: { path: { kitchen_slug: kitchen_slug.value } },
        }),
      ),
  })
}
