import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { guardSecondTouch } from './secondTouch'

guardSecondTouch(document)
let hit: string[] = []
let now = 0
beforeEach(() => {
  hit = []
  now += 10_000
  document.body.innerHTML =
    '<button id="save">Save</button><a id="away" href="#x"><b>Away</b></a><input id="field">'
  for (const one of document.querySelectorAll('button, a, input'))
    one.addEventListener('click', () => hit.push(one.id))
})
afterEach(() => (document.body.innerHTML = ''))

/** A touch so many milliseconds after the test began, at a place; a key has none. */
function touch(what: string, at: number, { x = 100, y = 100, detail = 1 } = {}): boolean {
  const event = new MouseEvent('click', { bubbles: true, cancelable: true, clientX: x, clientY: y, detail })
  Object.defineProperty(event, 'timeStamp', { value: now + at })
  return document.querySelector(what)?.dispatchEvent(event) ?? false
}

describe('the second of two quick touches', () => {
  it('does not hit what came to lie under the finger', () => {
    touch('#save', 0)
    expect(touch('b', 150)).toBe(false)
    expect(hit).toEqual(['save'])
    // nor does the third
    touch('#away', 399)
    expect(hit).toEqual(['save'])
    touch('#away', 400)
    expect(hit).toEqual(['save', 'away'])
  })
  it('hits the same as often as one likes', () => {
    for (const at of [0, 100, 200]) touch('#save', at)
    expect(hit).toEqual(['save', 'save', 'save'])
  })
  it('hits what lies elsewhere, fields, and what a key presses', () => {
    touch('#save', 0)
    touch('#away', 100, { x: 113 })
    touch('#save', 150, { detail: 0 })
    touch('#field', 160)
    expect(hit).toEqual(['save', 'away', 'save', 'field'])
  })
})
