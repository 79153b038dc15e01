import { onKeyStroke, useLocalStorage } from '@vueuse/core'
import { useRouter } from 'vue-router'
import { hasTyped } from '@/shared/writing/typed'

/** Whether letters act by themselves on this device; `?` always shows where that is said. */
export const areLettersKeys = useLocalStorage('dolmetsch:letter-keys', true)
const HELP = '?'

/** Meant for the page: not with a modifier, and not a letter where these are switched off. */
function isOurs(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return false
  return event.key.length > 1 || event.key === HELP || areLettersKeys.value
}

/** Letters for frequent acts; never while typing, never with a modifier, so that nothing is lost. */
export function useKeys(acts: Record<string, () => void>): void {
  onKeyStroke(Object.keys(acts), (event) => {
    if (!isOurs(event)) return
    const target = event.target as HTMLElement | null
    const typing = target?.closest('input, textarea, select, [contenteditable]')
    if (typing && event.key !== 'Escape') return
    if (document.querySelector('[aria-modal="true"]')) return
    event.preventDefault()
    acts[event.key]?.()
  })
}

/** Letters that lead to other pages, by the names of their routes; none leaves what was typed and is not saved. */
export function useLinkKeys(links: Record<string, string>): void {
  const router = useRouter()
  const goTo = (name: string) => (): void => {
    if (!hasTyped()) void router.push({ name })
  }
  useKeys(Object.fromEntries(Object.entries(links).map(([key, name]) => [key, goTo(name)])))
}
