import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import {
  api,
  type Cures,
  type Pieces,
  type Plan,
  type ProblemError,
  type Schemas,
  take,
  type PieceFire,
} from './client'
import { useSlug } from './useBatch'

/** The living pieces of a batch, with size, skin and place. */
export function usePieces(code: Ref<string>) {
  const kitchen_slug = useSlug()
  return useQuery<Pieces, ProblemError>({
    queryKey: computed(() => ['pieces', kitchen_slug.value, code.value]),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/batches/{code}/pieces', {
          params: { path: { kitchen_slug: kitchen_slug.value, code: code.value } },
        }),
      ),
  })
}

/** What is to be done within `days`; of one batch where its code is given. */
export function usePlan(days: number, code: Ref<string>) {
  const kitchen_slug = useSlug()
  return useQuery<Plan, ProblemError>({
    queryKey: computed(() => ['plan', kitchen_slug.value, code.value, days]),
    enabled: computed(() => kitchen_slug.value !== ''),
    refetchInterval: 60_000,
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/plan', {
          params: { path: { kitchen_slug: kitchen_slug.value }, query: { days, code: code.value } },
        }),
      ),
  })
}

/** Who lies where until when, along two weeks. */
export function useLanes() {
  const kitchen_slug = useSlug()
  return useQuery<Schemas['LanesOut'], ProblemError>({
    queryKey: computed(() => ['lanes', kitchen_slug.value]),
    enabled: computed(() => kitchen_slug.value !== ''),
    refetchInterval: 60_000,
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/lanes', {
          params: { path: { kitchen_slug: kitchen_slug.value } },
        }),
      ),
  })
}

/** Every cure of a batch. */
export function useCures(code: Ref<string>) {
  const kitchen_slug = useSlug()
  return useQuery<Cures, ProblemError>({
    queryKey: computed(() => ['cures', kitchen_slug.value, code.value]),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/batches/{code}/cures', {
          params: { path: { kitchen_slug: kitchen_slug.value, code: code.value } },
        }),
      ),
  })
}

/** The latest fire of each piece of a batch, with its share of fuel and work. */
export function usePieceFires(code: Ref<string>) {
  const kitchen_slug = useSlug()
  return useQuery<PieceFire[], ProblemError>({
    queryKey: computed(() => ['fires', kitchen_slug.value, 'of', code.value]),
    queryFn: async () => {
      const path = { kitchen_slug: kitchen_slug.value, code: code.value }
      return (await take(api.GET('/api/kitchens/{kitchen_slug}/batches/{code}/fires', { params: { path } })))
        .pieces
    },
  })
}

/** What was cut off before, and what it was worth. */
export function useOffcuts() {
  const kitchen_slug = useSlug()
  return useQuery<Schemas['OffcutOut'][], ProblemError>({
    queryKey: computed(() => ['offcuts', kitchen_slug.value]),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/offcuts', {
          params: { path: { kitchen_slug: kitchen_slug.value } },
        }),
      ),
  })
}

/** Which piece lies where. */
export function useMap() {
  const kitchen_slug = useSlug()
  return useQuery<Schemas['MapOut'], ProblemError>({
    queryKey: computed(() => ['map', kitchen_slug.value]),
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/map', {
          params: { path: { kitchen_slug: kitchen_slug.value } },
        }),
      ),
  })
}
