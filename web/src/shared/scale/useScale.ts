import { useEventSource, useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, type Problem, refusal, take, type Schemas } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'

type Weight = Schemas['Weight']
export type ScaleEvent = {
  scale: string
  state: 'live' | 'over' | 'silent' | 'rubbish' | 'away'
  step?: string
  simulated?: boolean
  grams?: string
  net?: Weight
  tare?: Weight | null
  steady?: boolean
  below?: boolean
}
export type ScaleState = ScaleEvent['state'] | 'none' | 'waiting' | 'choose'

/** Without any event for so long the scale is silent, whoever is to blame. */
const SILENT_MS = 1700

/** A steady scale that shows the next step for so long means it. */
const MEANT_MS = 1000

/** Whether both are steady, under the same tare and a step apart at most. */
function isBeside(fresh: ScaleEvent, held: ScaleEvent | null): held is ScaleEvent {
  if (!fresh.steady || !held?.steady || fresh.tare?.kg !== held.tare?.kg) return false
  return Math.abs(Number(fresh.grams) - Number(held.grams)) <= Number(fresh.step ?? 0)
}

/**
 * Keeps a steady weight that trembles by a single step as it was, so that it can be read and taken. A step that stays
 * is followed: the first steady reading may still have been on the swing.
 */
function createHold(): (fresh: ScaleEvent, held: ScaleEvent | null) => ScaleEvent {
  let next: { grams?: string; since: number } = { since: 0 }
  return (fresh, held) => {
    if (next.grams !== fresh.grams) next = { grams: fresh.grams, since: Date.now() }
    return isBeside(fresh, held) && Date.now() - next.since < MEANT_MS ? held : fresh
  }
}

/** The scale that is heard: its latest reading, and in words why there is none. */
export function useScale() {
  const kitchen_slug = useSlug()
  const names = ref<string[] | null>(null)
  const chosen = ref(localStorage.getItem('dolmetsch:scale') ?? '')
  const name = computed(() => {
    if (names.value?.length === 1) return names.value[0] ?? ''
    return names.value?.includes(chosen.value) ? chosen.value : ''
  })
  const address = computed(() =>
    name.value ? `/api/kitchens/${kitchen_slug.value}/scales/${name.value}/stream` : undefined,
  )
  const { data, open, error } = useEventSource(address, [], { immediate: false })
  const event = ref<ScaleEvent | null>(null)
  const hold = createHold()
  const heardAt = ref(0)
  const now = ref(Date.now())

  /** Which scales there are; without an answer none, until the network is back. */
  async function lookAround(): Promise<void> {
    const path = { kitchen_slug: kitchen_slug.value }
    const problem = await refusal(async () => {
      names.value = (await take(api.GET('/api/kitchens/{kitchen_slug}/scales', { params: { path } }))).names
    })
    if (problem) names.value ??= []
  }
  void lookAround()
  useEventListener(window, 'online', () => void lookAround())
  // the stream follows the address by itself; what another scale said is no reading of this one
  watch(address, () => {
    event.value = null
    heardAt.value = now.value = Date.now()
  })
  watch(data, (texts) => {
    if (!texts) return
    event.value = hold(JSON.parse(texts) as ScaleEvent, event.value)
    heardAt.value = now.value = Date.now()
  })
  useIntervalFn(() => {
    now.value = Date.now()
    // a stream that ended, or was refused, is asked for again
    if (address.value && error.value && now.value - heardAt.value > 2 * SILENT_MS) {
      heardAt.value = now.value
      open()
    }
  }, 250)

  const state = computed<ScaleState>(() => {
    if (names.value === null) return 'waiting'
    if (names.value.length === 0) return 'none'
    if (!name.value) return 'choose'
    if (now.value - heardAt.value > SILENT_MS) return 'silent'
    return event.value?.state ?? 'waiting'
  })
  const words = computed(() => {
    const texts: Record<ScaleState, string> = {
      none: 'No scale here. Type the weight in.',
      choose: `${names.value?.length === 2 ? 'Two' : names.value?.length} scales: choose the one you are using.`,
      waiting: 'Looking for the scale …',
      silent: 'The scale has stopped sending. Type the weight in, or check the cable.',
      rubbish: 'The scale is sending something unreadable. Type the weight in.',
      away: 'The scale is not connected. Type the weight in.',
      over: 'Too much on the scale: take some off.',
      live: event.value?.below
        ? 'Below zero: tare again, or put the tray back.'
        : event.value?.steady
          ? 'steady'
          : 'moving',
    }
    return texts[state.value]
  })
  const isLoaded = computed(
    () =>
      state.value === 'live' &&
      event.value?.steady === true &&
      !event.value.below &&
      Number(event.value.grams) > 0,
  )
  /** The load that was taken and still lies there: a second touch must not take it for the next piece. */
  const taken = ref<ScaleEvent | null>(null)
  const isTaken = computed(() => taken.value !== null)
  const isTakeable = computed(() => isLoaded.value && !isTaken.value)
  watch([isLoaded, event], ([loaded, now]) => {
    if (!loaded || !now || !isBeside(now, taken.value)) taken.value = null
  })
  /** What lies there has been taken; it can be taken again once it was lifted, or with `putBack`. */
  function took(): void {
    taken.value = isLoaded.value ? event.value : null
  }
  function putBack(): void {
    taken.value = null
  }
  function choose(to: string): void {
    chosen.value = to
    localStorage.setItem('dolmetsch:scale', to)
  }
  /** Why the scale would not tare. */
  const problem = ref<Problem | null>(null)
  async function command(word: 'tare' | 'clear'): Promise<void> {
    problem.value = await refusal(async () => {
      await take(
        api.POST('/api/kitchens/{kitchen_slug}/scales/{name}/command', {
          params: { path: { kitchen_slug: kitchen_slug.value, name: name.value } },
          body: { command: word },
        }),
      )
    })
  }
  async function lay(body: Schemas['LayIn']): Promise<void> {
    await take(
      api.POST('/api/kitchens/{kitchen_slug}/scales/{name}/lay', {
        params: { path: { kitchen_slug: kitchen_slug.value, name: name.value } },
        body,
      }),
    )
  }
  return {
    names,
    name,
    event,
    state,
    words,
    problem,
    isTakeable,
    isTaken,
    took,
    putBack,
    choose,
    command,
    lay,
  }
}
