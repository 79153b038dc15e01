import { beforeEach, describe, expect, it } from 'vitest'
import { hasTyped, nothingTyped } from './typed'
import { useWrite } from './useWrite'

/** Type into a field of `page`. */
function typeInto(page: string): void {
  document.body.innerHTML = page
  document.querySelector('input')?.dispatchEvent(new Event('input', { bubbles: true }))
}

beforeEach(() => {
  localStorage.clear()
  nothingTyped()
})

describe('what was typed and not saved', () => {
  it.each([
    ['a form', '<form><input /></form>', true],
    ['a page', '<main><input /></main>', true],
    ['what lies outside of both', '<header><input /></header>', false],
  ])('is known of %s', (_where, page, is) => {
    typeInto(page)
    expect(hasTyped()).toBe(is)
  })

  it('is nothing once it is saved, and stays after a refusal', async () => {
    typeInto('<main><input /></main>')
    await useWrite('a', () => Promise.reject(new TypeError('lost')))
      .write({}, () => undefined)
      .catch(() => undefined)
    expect(hasTyped()).toBe(true)
    await useWrite('b', () => Promise.resolve('taken')).write({}, () => undefined)
    expect(hasTyped()).toBe(false)
  })
})
