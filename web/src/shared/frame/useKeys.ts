import { onKeyStroke } from '@vueuse/core'

/** Letters for frequent acts; never while typing, never with a modifier, so that nothing is lost. */
export function useKeys(acts: Record<string, () => void>): void {
  onKeyStroke(Object.keys(acts), (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return
    const target = event.target as HTMLElement | null
    const typing = target?.closest('input, textarea, select, [contenteditable]')
    if (typing && event.key !== 'Escape') return
    if (document.querySelector('[aria-modal="true"]')) return
    event.preventDefault()
    acts[event.key]?.()
  })
}
