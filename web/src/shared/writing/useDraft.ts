import { reactive, watch } from 'vue'
import { ownerKey } from '@/shared/api/owner'

/**
 * Something being typed, kept on the device until it is recorded: it survives a reload, a closed page,
 * a session that ran out. It belongs to the cook and kitchen signed in; blank drafts are not kept.
 */
export function useDraft<T extends object>(name: string, blank: () => T) {
  const storageKey = `dolmetsch:${ownerKey()}:${name}`
  const draft = reactive(restore(storageKey, blank)) as T
  const stop = watch(
    draft,
    () => {
      const told = JSON.stringify(draft)
      if (told === JSON.stringify(blank())) localStorage.removeItem(storageKey)
      else localStorage.setItem(storageKey, told)
    },
    { deep: true, flush: 'sync' },
  )
  function clear(): void {
    Object.assign(draft, blank())
    localStorage.removeItem(storageKey)
  }
  return { draft, clear, stop }
}

function restore<T extends object>(storageKey: string, blank: () => T): T {
  const fresh = blank()
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(storageKey) ?? 'null')
    if (typeof kept !== 'object' || kept === null) return fresh
    const known = Object.entries(kept).filter(([name]) => name in fresh)
    return { ...fresh, ...Object.fromEntries(known) }
  } catch {
    return fresh
  }
}
