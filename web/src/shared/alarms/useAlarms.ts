import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { type Schemas } from '@/shared/api/client'

export type Alarm = Schemas['AlarmOut']
/** How often the fires are asked whether anything is wrong, wherever one is. */
const ASKED_EVERY = 10_000
/** Whether alarms ring, on this device. */
export const isLoud = useLocalStorage('dolmetsch:alarm-sound', false)

/** What asks for the cook, of all fires; quieted alarms stay in the list. */
export function useAlarms() {
  const { data } = useKitchenQuery('alarms', '/alarms', () => ({}), { refetchInterval: ASKED_EVERY })
  const alarms = computed<Alarm[]>(() => data.value?.alarms ?? [])
  return {
    alarms,
    loud: computed(() => alarms.value.filter((one) => !one.is_quiet)),
    pieces: computed(() => data.value?.pieces ?? 0),
  }
}
