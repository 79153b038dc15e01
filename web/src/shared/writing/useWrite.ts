import { useQueryClient } from '@tanstack/vue-query'
import { computed, getCurrentScope, hasInjectionContext, onScopeDispose, ref, watch } from 'vue'
import { type Problem, ProblemError, retriable } from '@/shared/api/client'
import { ownerKey } from '@/shared/api/owner'
import { useSession } from '@/shared/api/useSession'
import { newKey } from './newKey'
import { nothingTyped } from './typed'

export type WriteState = 'idle' | 'saving' | 'saved' | 'failed' | 'refused'
type Pending = { key: string; text: string }

/**
 * Sends a body under an idempotency key. The key stays as long as the body does, across failures and
 * reloads, so trying again never records twice; a changed body takes a new key.
 *
 * Where the form was left before the answer came, all that is on the screen is asked for anew.
 *
 * `typed`: what is typed in the form. A refusal is dropped when that changes, and its faults are not held against
 * fields that were typed anew while it was on its way.
 */
export function useWrite<B, R>(
  name: string,
  send: (body: B, key: string) => Promise<R>,
  typed: () => unknown = () => null,
) {
  const storageKey = `dolmetsch:${ownerKey()}:pending:${name}`
  const state = ref<WriteState>('idle')
  const problem = ref<Problem | null>(null)
  const { signIns } = useSession()
  const queries = hasInjectionContext() ? useQueryClient() : null
  /** The form was left: nobody hears of its answer any more. */
  let isLeft = false
  if (getCurrentScope()) onScopeDispose(() => (isLeft = true))
  let last: { body: B; done: (answer: R) => void } | null = null

  function keyFor(body: B): string {
    const text = JSON.stringify(body)
    const kept = JSON.parse(localStorage.getItem(storageKey) ?? 'null') as Pending | null
    // by its content, whatever an older client called it: trying again never records twice
    if (kept && Object.values(kept).includes(text)) return kept.key
    const pending: Pending = { key: newKey(), text }
    localStorage.setItem(storageKey, JSON.stringify(pending))
    return pending.key
  }

  async function write(body: B, done: (answer: R) => void): Promise<void> {
    if (state.value === 'saving') return
    last = { body, done }
    state.value = 'saving'
    problem.value = null
    const sent = JSON.stringify(typed())
    try {
      const answer = await send(body, keyFor(body))
      localStorage.removeItem(storageKey)
      last = null
      state.value = 'saved'
      nothingTyped()
      done(answer)
      if (isLeft) void queries?.invalidateQueries()
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error
      const isAsSent = JSON.stringify(typed()) === sent
      problem.value = isAsSent ? error.problem : { ...error.problem, fields: [] }
      state.value = retriable.has(error.problem.code) ? 'failed' : 'refused'
      if (state.value === 'refused') localStorage.removeItem(storageKey)
    }
  }

  async function retry(): Promise<void> {
    if (last) await write(last.body, last.done)
  }

  watch(signIns, () => {
    if (problem.value?.code === 'signed_out') void retry()
  })

  function reset(): void {
    state.value = 'idle'
    problem.value = null
  }
  watch(
    () => JSON.stringify(typed()),
    () => state.value === 'refused' && reset(),
    { flush: 'sync' },
  )

  return { state, problem, write, retry, reset, isSaving: computed(() => state.value === 'saving') }
}
