import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, type ProblemError, take } from './client'
import type { paths } from './schema'
import { useSlug } from './useSlug'

type Root = '/api/kitchens/{kitchen_slug}'
/** Addresses below a kitchen that can be read. */
export type Readable = {
  [P in keyof paths]: P extends `${Root}${infer R}` ? (paths[P] extends { get: object } ? R : never) : never
}[keyof paths]
type Get<R extends Readable> = paths[`${Root}${R}`] extends { get: infer G } ? G : never
type Params<R extends Readable> = Get<R> extends { parameters: infer P } ? P : never
type Names<R extends Readable> =
  Params<R> extends { path: infer P } ? Omit<P, 'kitchen_slug'> : Record<never, never>
type Query<R extends Readable> = Params<R> extends { query?: infer Q } ? NonNullable<Q> : never
export type Answer<R extends Readable> =
  Get<R> extends { responses: { 200: { content: { 'application/json': infer A } } } } ? A : never

/** What is asked for: the names in the address, the query, and what else a kept answer goes by. */
type Asked<R extends Readable> = {
  path?: Names<R>
  query?: [Query<R>] extends [never] ? never : Query<R>
  /** Instead of both, in the order of the parts, where others name the answer too. */
  key?: unknown[]
}
type Options<A> = {
  enabled?: () => boolean
  refetchInterval?: number | ((query: { state: { data: A | undefined } }) => number | false)
  placeholderData?: (before: A | undefined) => A | undefined
  gcTime?: number
}

/** The part of a query's key that names a kitchen's answer; all below it are renewed by `name`. */
export const kitchenKey = (name: string | string[], slug: string, parts: unknown[] = []): unknown[] => [
  ...[name].flat(),
  slug,
  ...parts,
]

/** Asks for `below` the kitchen of the one who is signed in; not before it is known which that is. */
export function useKitchenQuery<R extends Readable>(
  name: string | string[],
  below: R,
  asked: () => Asked<R> = () => ({}),
  options: Options<Answer<R>> = {},
) {
  const slug = useSlug()
  const queries = useQueryClient()
  const { enabled = () => true, ...more } = options
  const queryKey = computed(() => {
    const { path = {}, query = {}, key } = asked()
    return kitchenKey(name, slug.value, key ?? [...Object.values(path), ...Object.values(query ?? {})])
  })
  const query = useQuery<Answer<R>, ProblemError>({
    ...(more as object),
    queryKey,
    enabled: computed(() => slug.value !== '' && enabled()),
    queryFn: () => askKitchen(slug.value, below, asked()),
  })
  /** What a write answered, in place of what was read. */
  const put = (now: Answer<R>): void => void queries.setQueryData(queryKey.value, now)
  return { ...query, put }
}

/** The answer itself. */
export function askKitchen<R extends Readable>(slug: string, below: R, asked: Asked<R>): Promise<Answer<R>> {
  const { path, query } = asked
  const params = { path: { kitchen_slug: slug, ...path }, ...(query && { query }) }
  return take(api.GET(`/api/kitchens/{kitchen_slug}${below}` as never, { params } as never)) as Promise<
    Answer<R>
  >
}
