import { computed, ref } from 'vue'
import { api, onSignedOut, ProblemError, type Problem, type Schemas, take } from './client'

const session = ref<Schemas['Session'] | null>(null)
const problem = ref<Problem | null>(null)
/** The session ran out while the page was open: sign in over what is on screen. */
const ranOut = ref(false)
const signIns = ref(0)

onSignedOut(() => {
  if (session.value?.signed_in) ranOut.value = true
})

async function load(): Promise<void> {
  problem.value = null
  try {
    session.value = await take(api.GET('/api/session'))
  } catch (error) {
    if (error instanceof ProblemError) problem.value = error.problem
  }
}

async function signIn(username: string, password: string): Promise<void> {
  await take(api.GET('/api/session'))
  session.value = await take(api.POST('/api/session', { body: { username, password } }))
  ranOut.value = false
  signIns.value += 1
}

async function signOut(): Promise<void> {
  session.value = await take(api.DELETE('/api/session'))
  navigator.serviceWorker?.controller?.postMessage('forget')
}

const kitchen = computed(() => session.value?.kitchens?.[0] ?? null)

/** Who is signed in, and in which kitchen they stand. */
export function useSession() {
  return { session, kitchen, problem, ranOut, signIns, load, signIn, signOut }
}
