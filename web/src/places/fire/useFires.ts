import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { useQueryClient } from '@tanstack/vue-query'
import { type Ref } from 'vue'
import { api, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useWrite } from '@/shared/writing/useWrite'

export type Live = Schemas['LiveOut']
export type FireIn = Schemas['FireIn']
export type EventIn = Schemas['EventIn']
export type Fires = Schemas['FiresOut']
export type Program = Schemas['ProgramOut']
/** Readings are kept every ten seconds; what follows from them is asked for a little oftener. */
const RENEWED_EVERY = 4_000

/** Fires, cookers with what they read, and programs. */
export function useFires() {
  return useKitchenQuery('fires', '/fires', () => ({}), { refetchInterval: RENEWED_EVERY })
}

/** A fire as it is now, asked for again and again while it is not done. */
export function useLive(id: Ref<number>) {
  return useKitchenQuery('fire', '/fires/{fire_id}', () => ({ path: { fire_id: id.value } }), {
    refetchInterval: (query) => (query.state.data?.done_at ? false : RENEWED_EVERY),
  })
}

/** Pieces go into the smoke. */
export function useBegin() {
  return useKitchenWrite('fire', '/fires')
}

/** Saves a program as the next version of its name. */
export function useSaveProgram(typed: () => unknown) {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  return useWrite<Schemas['ProgramIn'], Fires>(
    'program',
    async (body, key) => {
      const fires = await take(
        api.POST('/api/kitchens/{kitchen_slug}/programs', {
          params: { path: { kitchen_slug: kitchen_slug.value }, header: { 'Idempotency-Key': key } },
          body,
        }),
      )
      queries.setQueryData(['fires', kitchen_slug.value], fires)
      return fires
    },
    typed,
  )
}

/** What happens in a fire: each touch is one event, and the view follows at once. */
export function useEvents(id: Ref<number>) {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  const write = useKitchenWrite(`fire:${id.value}`, '/fires/{fire_id}/events', {
    path: () => ({ fire_id: id.value }),
  })
  function record(event: Partial<EventIn> & { kind: EventIn['kind'] }, done: () => void = () => {}): void {
    const body: EventIn = {
      probe: '',
      other: '',
      piece: '',
      where: '',
      temp: '',
      text: '',
      amount: '',
      price: '',
      minutes: '',
      ...event,
    }
    void write.write(body, (live) => {
      queries.setQueryData(['fire', kitchen_slug.value, id.value], live)
      void queries.invalidateQueries({ queryKey: ['fires'] })
      void queries.invalidateQueries({ queryKey: ['alarms'] })
      done()
    })
  }
  return { record, problem: write.problem, isSaving: write.isSaving, retry: write.retry }
}

/** What goes on in a simulated cooker, in its own words. */
export function useCommand(name: Ref<string>) {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  return async function command(words: string): Promise<void> {
    const fires = await take(
      api.POST('/api/kitchens/{kitchen_slug}/cookers/{name}/command', {
        params: { path: { kitchen_slug: kitchen_slug.value, name: name.value } },
        body: { command: words },
      }),
    )
    queries.setQueryData(['fires', kitchen_slug.value], fires)
  }
}
