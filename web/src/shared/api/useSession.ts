import { computed, ref, watch } from 'vue'
import { api, onSignedOut, ProblemError, type Problem, type Schemas, take } from './client'
import { countryOf } from '@/shared/kitchen/regions'
import { setCalendar, setZone } from '@/shared/quantity/when'
import { ownerKey, setOwner } from './owner'

const session = ref<Schemas['Session'] | null>(null)
const problem = ref<Problem | null>(null)
/** The session ran out while the page was open: sign in over what is on screen. */
const ranOut = ref(false)
const signIns = ref(0)

onSignedOut(() => {
  if (!session.value?.signed_in) return
  forgetSeen()
  // on the kitchen's tablet nobody signs in again: it asks who is there
  if (session.value.tablet) void load()
  else ranOut.value = true
})
/** The kitchen chosen on this device, of those one is in. */
const CHOSEN = 'dolmetsch:kitchen'
const chosen = ref(localStorage.getItem(CHOSEN) ?? '')
const kitchen = computed(() => {
  const kitchens = session.value?.kitchens ?? []
  return kitchens.find((one) => one.slug === chosen.value) ?? kitchens[0] ?? null
})
watch(
  [session, kitchen],
  ([now, here]) => {
    const username = now?.username
    setOwner(now?.signed_in && here && username ? { kitchen: here.slug, username } : null)
    setZone(here?.time_zone ?? '')
    setCalendar(countryOf(here?.country ?? ''))
  },
  { flush: 'sync' },
)

function choose(slug: string): void {
  localStorage.setItem(CHOSEN, slug)
  chosen.value = slug
}
/** What an answer says of who is signed in now. */
function become(now: Schemas['Session']): void {
  if (!now.signed_in) forgetSeen()
  session.value = now
  ranOut.value = false
}

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

async function signIn(username: string, password: string, code = ''): Promise<void> {
  const before = ownerKey()
  await take(api.GET('/api/session'))
  session.value = await take(api.POST('/api/session', { body: { username, password, code } }))
  ranOut.value = false
  // another cook's page is opened anew: what the one before typed is not sent in this one's name
  if (!before || before === ownerKey()) signIns.value += 1
}

async function signOut(): Promise<void> {
  session.value = await take(api.DELETE('/api/session'))
  forgetSeen()
}

const order = ['reader', 'helper', 'cook', 'owner']
/** Whether one's role in the kitchen is `least` or more. */
const may = (least: string): boolean => order.indexOf(kitchen.value?.role ?? 'reader') >= order.indexOf(least)
const seesMoney = computed(() => kitchen.value?.sees_money ?? true)

/** Who is signed in, in which kitchen, and what they may do there. */
export function useSession() {
  return {
    session,
    kitchen,
    problem,
    ranOut,
    signIns,
    load,
    signIn,
    signOut,
    choose,
    become,
    may,
    seesMoney,
  }
}
