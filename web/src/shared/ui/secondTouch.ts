/** A second touch within so long, and so near, was meant for what was touched first. */
const TOGETHER_MS = 400
const NEAR_PX = 12

const pressed = (event: MouseEvent): Element | null =>
  event.target instanceof Element ? event.target.closest('button, a, summary') : null

/**
 * Keeps the second of two quick touches from what came to lie under the finger through the first: a form that was
 * saved and gave way, a list that moved up. The same button may be touched as often as one likes.
 */
export function guardSecondTouch(root: Document): void {
  let first: { what: Element; at: number; x: number; y: number } | null = null
  root.addEventListener(
    'click',
    (event) => {
      const what = pressed(event)
      // keys press without a place
      if (what === null || event.detail === 0) return
      const { timeStamp: at, clientX: x, clientY: y } = event
      const isSecond =
        first !== null && at - first.at < TOGETHER_MS && Math.hypot(x - first.x, y - first.y) < NEAR_PX
      if (isSecond && first?.what !== what) {
        event.preventDefault()
        event.stopPropagation()
      } else first = { what, at, x, y }
    },
    { capture: true },
  )
}
