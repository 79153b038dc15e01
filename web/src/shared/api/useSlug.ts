import { computed } from 'vue'
import { useSession } from './useSession'

/** The kitchen's name in addresses. */
export function useSlug() {
  const { kitchen } = useSession()
  return computed(() => kitchen.value?.slug ?? '')
}
