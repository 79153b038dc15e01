import { computed, ref, watch } from 'vue'
import { api, onSignedOut, ProblemError, type Problem, type Schemas, take } from './client'
import { ownerKey, setOwner } from './owner'

const session = ref<Schemas['Session'] | null>(null)
const problem = ref<Problem | null>(null)
/** The session ran out while the page was open: sign in over what is on screen. */
const ranOut = ref(false)
const signIns = ref(0)

onSignedOut(() => {
  if (!session.value?.signed_in) return
  ranOut.value = true
  forgetSeen()
})
watch(
  session,
  (now) => {
    const [kitchen, username] = [now?.kitchens?.[0]?.slug, now?.username]
    setOwner(now?.signed_in && kitchen && username ? { kitchen, username } : null)
  },
  { flush: 'sync' },
)

/** What the device kept of the kitchen goes with the session. */
function forgetSeen(): void {
  navigator.serviceWorker?.controller?.postMessage('forget')
}

async function load(): Promise<void> {
  problem.value = null
  try {
    session.value = await take(api.GET('/api/session'))
  } catch (error) {
    if (error instanceof ProblemError) problem.value = error.problem
  }
}

async function signIn(username: string, password: string): Promise<void> {
  const before = ownerKey()
  await take(api.GET('/api/session'))
  session.value = await take(api.POST('/api/session', { body: { username, password } }))
  ranOut.value = false
  // another cook's page is opened anew: what the one before typed is not sent in this one's name
  if (!before || before === ownerKey()) signIns.value += 1
}

async function signOut(): Promise<void> {
  session.value = await take(api.DELETE('/api/session'))
  forgetSeen()
}

const kitchen = computed(() => session.value?.kitchens?.[0] ?? null)

/** Who is signed in, and in which kitchen they stand. */
export function useSession() {
  return { session, kitchen, problem, ranOut, signIns, load, signIn, signOut }
}
