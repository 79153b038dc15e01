import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { computed, type Ref } from 'vue'
import { api, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useWrite } from '@/shared/writing/useWrite'

export type Practice = Schemas['PracticeOut']
export type PracticeVerdict = Schemas['PracticeVerdictOut']
type Act = Schemas['PracticeActIn']
const RENEWED_EVERY = 1_500

/** What can be practiced, and how it went lately. */
export function usePractices() {
  return useKitchenQuery('practice', '/practice')
}

/** Begins a run. */
export function useBeginPractice() {
  return useKitchenWrite('practice', '/practice')
}

/** A run as it goes on, and what is done in it. */
export function useRun(id: Ref<number>) {
  const kitchen_slug = useSlug()
  const path = computed(() => ({ kitchen_slug: kitchen_slug.value, run_id: id.value }))
  const query = useKitchenQuery('practice', '/practice/{run_id}', () => ({ path: { run_id: id.value } }), {
    refetchInterval: ({ state }) => (state.data?.verdict ? false : RENEWED_EVERY),
  })
  const write = useWrite<Act, Practice>(`practice:${id.value}`, (body, key) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/practice/{run_id}/events', {
        params: { path: path.value, header: { 'Idempotency-Key': key } },
        body,
      }),
    ),
  )
  function act(event: Partial<Act> & { kind: Act['kind'] }): void {
    const { kind, stage = null, text = '' } = event
    void write.write({ kind, stage, text }, query.put)
  }
  return { ...query, act, problem: write.problem, isSaving: write.isSaving, retryAct: write.retry }
}
