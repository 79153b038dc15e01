import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { useQueryClient } from '@tanstack/vue-query'
import { type Schemas } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'

export type Chamber = Schemas['ChamberOut']
export type Hanging = Schemas['HookOut']
export type NoteIn = Schemas['HookNoteIn']
export type HangIn = Schemas['HangIn']

/** What hangs, the next ready first. */
export function useChamber() {
  return useKitchenQuery('chamber', '/chamber', () => ({}), { refetchInterval: 60_000 })
}

/** Hanging a piece, and noting something of one that hangs. */
export function useHooks() {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  const hanging = useKitchenWrite('hang', '/hooks')
  const noting = useKitchenWrite<'/hooks/{hook_id}/notes', { id: number; note: NoteIn }>(
    'hook',
    '/hooks/{hook_id}/notes',
    { path: ({ id }) => ({ hook_id: id }), body: ({ note }) => note },
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
