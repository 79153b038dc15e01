import { onKeyStroke } from '@vueuse/core'

type Acts = {
  move: (by: number) => void
  figure: (figure: string) => void
  erase: () => void
  undo: () => void
  swap: () => void
  take: () => void
  back: () => void
}

/** Arrows choose a piece, figures type, Enter takes, U undoes, S swaps, Esc goes back; never while in a field. */
export function useWeighKeys(acts: Acts): void {
  const inside = (event: KeyboardEvent, what: string): boolean =>
    !!(event.target as HTMLElement).closest(what)
  function on(keys: string[], act: (event: KeyboardEvent) => void): void {
    onKeyStroke(keys, (event) => {
      if (event.ctrlKey || event.metaKey || event.altKey || inside(event, 'input, textarea, select')) return
      event.preventDefault()
      act(event)
    })
  }
  on(['ArrowDown', 'ArrowRight'], () => acts.move(1))
  on(['ArrowUp', 'ArrowLeft'], () => acts.move(-1))
  // a comma is the decimal sign of many keyboards
  on([...'0123456789.,'], (event) => acts.figure(event.key === ',' ? '.' : event.key))
  on(['Backspace'], acts.erase)
  on(['u'], acts.undo)
  on(['s'], acts.swap)
  onKeyStroke('Enter', (event) => {
    // a button, link or field does its own
    if (inside(event, 'button, a, summary, input, select')) return
    event.preventDefault()
    acts.take()
  })
  onKeyStroke('Escape', (event) => {
    event.preventDefault()
    acts.back()
  })
}
