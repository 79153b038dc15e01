import { computed, ref } from 'vue'
import { measureClock } from './deviceClock'

/** How long a request may take before it is given up, and before a word is said about the wait. */
export const GIVE_UP = 20_000
export const SAY_SO = 4_000

const slow = ref(0)
/** A write has been without an answer for some seconds. */
export const isSlow = computed(() => slow.value > 0)

/** `fetch` that does not wait for ever; a write that takes its time says so on the screen meanwhile. */
export async function patientFetch(asked: Request | string, options: RequestInit = {}): Promise<Response> {
  const isWrite = (asked instanceof Request ? asked.method : (options.method ?? 'GET')) !== 'GET'
  const stop = new AbortController()
  const end = setTimeout(() => stop.abort(), GIVE_UP)
  let said = false
  const word = setTimeout(() => {
    said = isWrite
    if (said) slow.value += 1
  }, SAY_SO)
  try {
    const sent = Date.now()
    const answer = await globalThis.fetch(asked, { ...options, signal: stop.signal })
    measureClock(answer, sent, Date.now())
    // all of it, so that a body that never ends is given up too
    const isEmpty = answer.status === 204 || answer.status === 304
    const body = isEmpty ? null : await answer.arrayBuffer()
    return new Response(body, {
      status: answer.status,
      statusText: answer.statusText,
      headers: answer.headers,
    })
  } finally {
    clearTimeout(end)
    clearTimeout(word)
    if (said) slow.value -= 1
  }
}
