/** Whether something was typed on this page that has not been saved: such a page is not left by Esc. */
let typed = false

export const hasTyped = (): boolean => typed
export const nothingTyped = (): void => {
  typed = false
}

document.addEventListener('input', (event) => {
  if ((event.target as HTMLElement | null)?.closest('form, main')) typed = true
})
