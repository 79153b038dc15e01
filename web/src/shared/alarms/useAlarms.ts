import { useQuery } from '@tanstack/vue-query'
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { api, type ProblemError, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'

type Alarms = Schemas['AlarmsOut']
export type Alarm = Schemas['AlarmOut']
/** How often the fires are asked whether anything is wrong, wherever one is. */
const ASKED_EVERY = 10_000
/** Whether alarms ring, on this device. */
export const isLoud = useLocalStorage('dolmetsch:alarm-sound', false)

/** What asks for the cook, of all fires; quieted alarms stay in the list. */
export function useAlarms() {
  const kitchen_slug = useSlug()
  const { data } = useQuery<Alarms, ProblemError>({
    queryKey: computed(() => ['alarms', kitchen_slug.value]),
    enabled: computed(() => kitchen_slug.value !== ''),
    refetchInterval: ASKED_EVERY,
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/alarms', {
          params: { path: { kitchen_slug: kitchen_slug.value } },
        }),
      ),
  })
  const alarms = computed<Alarm[]>(() => data.value?.alarms ?? [])
  return {
    alarms,
    loud: computed(() => alarms.value.filter((one) => !one.is_quiet)),
    pieces: computed(() => data.value?.pieces ?? 0),
  }
}
