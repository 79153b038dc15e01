import { useEventSource, useIntervalFn } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'
import { useSlug } from '@/shared/api/useSlug'
import type { Live } from './useFires'

/** A reading as it comes: by probe, in both units. */
export type Heard = {
  state: 'live' | 'silent' | 'away'
  at?: string
  read?: Record<'F' | 'C', Record<string, string>>
}
/** A stream that ended, or was refused, is asked for again after so long. */
const AGAIN_MS = 5_000

/** What a cooker's probes read, as it comes; null without one. */
export function useReadings(cooker: Ref<string>) {
  const kitchen_slug = useSlug()
  const address = computed(() =>
    cooker.value && kitchen_slug.value
      ? `/api/kitchens/${kitchen_slug.value}/cookers/${encodeURIComponent(cooker.value)}/stream`
      : undefined,
  )
  const { data, error, open } = useEventSource(address, [])
  const heard = ref<Heard | null>(null)
  watch(address, () => (heard.value = null))
  watch(data, (text) => {
    if (text) heard.value = JSON.parse(text) as Heard
  })
  useIntervalFn(() => {
    if (address.value && error.value) open()
  }, AGAIN_MS)
  return heard
}

/** What was read after the server's last answer, in the fire's unit; null where that is newer, or it is done. */
function newerRead(live: Live, heard: Heard | null): Record<string, string> | null {
  if (!heard?.at || live.done_at) return null
  const isNewer = Date.parse(heard.at) >= Date.parse(live.heard_at ?? live.begun_at)
  return isNewer ? (heard.read?.[live.unit] ?? null) : null
}

/**
 * The fire with the latest reading in it, so that rack, curve and air all say the same; what follows from
 * readings (ready, troubles, lethality) is the server's and comes with its next answer.
 */
export function withReading(live: Live, heard: Heard | null): Live {
  const read = newerRead(live, heard)
  if (!read) return live
  const now = (probe: string | null, before: string | null): string | null => read[probe ?? ''] ?? before
  return {
    ...live,
    air: now('air', live.air),
    coldest: now(live.coldest_probe, live.coldest),
    hanging: live.hanging.map((one) => ({ ...one, now: now(one.probe, one.now) })),
    curves: live.curves.map((one) => (one.is_now ? { ...one, now: now(one.probe, one.now) } : one)),
  }
}
