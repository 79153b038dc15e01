import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, type ProblemError, type Schemas, take } from './client'
import { useSlug } from './useBatch'

/** The kitchen's methods: steps, what each uses, minutes, days. */
export function useWays() {
  const kitchen_slug = useSlug()
  return useQuery<Schemas['WaysOut'], ProblemError>({
    queryKey: computed(() => ['ways', kitchen_slug.value]),
    enabled: computed(() => kitchen_slug.value !== ''),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/ways', {
          params: { path: { kitchen_slug: kitchen_slug.value } },
        }),
      ),
  })
}
