import { ref } from 'vue'

/**
 * Something dragged along days of so many pixels (`dayWidth`): `move` is called with each day it is dragged on,
 * 1 or -1, while it is held. Handlers for the pointer's events of what is taken hold of.
 */
export function useDayDrag(dayWidth: () => number, move: (days: number) => void) {
  const isDragging = ref(false)
  let from = 0
  function take(event: PointerEvent): void {
    isDragging.value = true
    from = event.clientX
    // drags go on outside of it
    ;(event.target as HTMLElement).setPointerCapture?.(event.pointerId)
  }
  function drag(event: PointerEvent): void {
    const width = dayWidth()
    if (!isDragging.value || width <= 0) return
    const days = Math.trunc((event.clientX - from) / width)
    if (days === 0) return
    from += days * width
    move(days)
  }
  function drop(): void {
    isDragging.value = false
  }
  return { isDragging, take, drag, drop }
}
