import { StorageSerializers, useLocalStorage } from '@vueuse/core'
import { reactive, watch } from 'vue'
import { ownerKey } from '@/shared/api/owner'

/**
 * Something being typed, kept on the device until it is recorded: it survives a reload, a closed page,
 * a session that ran out. It belongs to the cook and kitchen signed in; blank drafts are not kept.
 */
export function useDraft<T extends object>(name: string, blank: () => T) {
  const fresh = blank()
  const kept = useLocalStorage<Partial<T> | null>(`dolmetsch:${ownerKey()}:${name}`, null, {
    serializer: StorageSerializers.object,
    flush: 'sync',
    // two windows that type at once keep to what each shows
    listenToStorageChanges: false,
    // what cannot be read is as good as nothing kept
    onError: () => undefined,
  })
  const known = Object.entries(kept.value ?? {}).filter(([field]) => field in fresh)
  const draft = reactive({ ...fresh, ...Object.fromEntries(known) }) as T
  const stop = watch(
    draft,
    () => {
      const text = JSON.stringify(draft)
      kept.value = text === JSON.stringify(blank()) ? null : (JSON.parse(text) as T)
    },
    { deep: true, flush: 'sync' },
  )
  function clear(): void {
    Object.assign(draft, blank())
    kept.value = null
  }
  return { draft, clear, stop }
}
