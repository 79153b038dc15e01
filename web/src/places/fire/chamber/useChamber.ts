import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, type ProblemError, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'
import { useWrite } from '@/shared/writing/useWrite'

export type Chamber = Schemas['ChamberOut']
export type Hanging = Schemas['HookOut']
export type NoteIn = Schemas['HookNoteIn']
export type HangIn = Schemas['HangIn']

/** What hangs, the next ready first. */
export function useChamber() {
  const kitchen_slug = useSlug()
  return useQuery<Chamber, ProblemError>({
    queryKey: computed(() => ['chamber', kitchen_slug.value]),
    enabled: computed(() => kitchen_slug.value !== ''),
    refetchInterval: 60_000,
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/chamber', {
          params: { path: { kitchen_slug: kitchen_slug.value } },
        }),
      ),
  })
}

/** Hanging a piece, and noting something of one that hangs. */
export function useHooks() {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  const hanging = useWrite<HangIn, Schemas['HungOut']>('hang', (body, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/hooks', {
        params: { path: { kitchen_slug: kitchen_slug.value }, header: { 'Idempotency-Key': key } },
        body,
      }),
    ),
  )
  const noting = useWrite<{ id: number; note: NoteIn }, Chamber>('hook', ({ id, note }, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/hooks/{hook_id}/notes', {
        params: {
          path: { kitchen_slug: kitchen_slug.value, hook_id: id },
          header: { 'Idempotency-Key': key },
        },
        body: note,
      }),
    ),
  )
  function hang(body: HangIn, done: () => void): void {
    void hanging.write(body, () => {
      void queries.invalidateQueries({ queryKey: ['chamber'] })
      done()
    })
  }
  function note(id: number, about: Partial<NoteIn> & { kind: NoteIn['kind'] }, done: () => void): void {
    const body: NoteIn = { temp: '', humidity: '', ph: '', before: '', after: '', ...about }
    void noting.write({ id, note: body }, (chamber) => {
      queries.setQueryData(['chamber', kitchen_slug.value], chamber)
      done()
    })
  }
  return { hang, note, hangProblem: hanging.problem, noteProblem: noting.problem }
}
