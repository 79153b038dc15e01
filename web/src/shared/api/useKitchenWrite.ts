import { useWrite } from '@/shared/writing/useWrite'
import { api, take } from './client'
import type { paths } from './schema'
import { useSlug } from './useSlug'

type Root = '/api/kitchens/{kitchen_slug}'
/** Addresses below a kitchen that something is recorded at. */
type Writable = {
  [P in keyof paths]: P extends `${Root}${infer R}` ? (paths[P] extends { post: object } ? R : never) : never
}[keyof paths]
type Post<R extends Writable> = paths[`${Root}${R}`] extends { post: infer P } ? P : never
type Names<R extends Writable> =
  Post<R> extends { parameters: { path: infer P } } ? Omit<P, 'kitchen_slug'> : never
type Body<R extends Writable> =
  Post<R> extends { requestBody: { content: { 'application/json': infer B } } } ? B : undefined
type Json<A> = A extends { content: { 'application/json': infer J } } ? J : never
type Written<R extends Writable> =
  Post<R> extends { responses: infer A } ? Json<A[Extract<keyof A, 200 | 201>]> : never

/**
 * Records something `below` the kitchen of the one who is signed in (`useWrite`). What is written, `B`, is the body
 * unless `body` makes one of it; `path` says whose address it is.
 */
export function useKitchenWrite<R extends Writable, B = Body<R>>(
  name: string,
  below: R,
  {
    path,
    body,
    typed,
  }: { path?: (now: B) => Names<R>; body?: (now: B) => Body<R>; typed?: () => unknown } = {},
) {
  const slug = useSlug()
  return useWrite<B, Written<R>>(
    name,
    (now, key) => {
      const params = {
        path: { kitchen_slug: slug.value, ...path?.(now) },
        header: { 'Idempotency-Key': key },
      }
      const asked = { params, body: body ? body(now) : now }
      return take(api.POST(`/api/kitchens/{kitchen_slug}${below}` as never, asked as never)) as Promise<
        Written<R>
      >
    },
    typed,
  )
}
