import { disableAutoUnmount, enableAutoUnmount, RouterLinkStub } from '@vue/test-utils'
import { afterEach, beforeEach, expect, vi } from 'vitest'
import { h, type Slots, type VNode } from 'vue'
import { measureClock } from '@/shared/api/deviceClock'
import { setOwner } from '@/shared/api/owner'

/** A warning is an error: the test fails in which Vue, or anything else, warned of something. */
const warned: string[] = []
console.warn = (...words: unknown[]) => void warned.push(words.join(' '))
afterEach(() => expect(warned.splice(0)).toEqual([]))

/** A link that lays itself out has one element for its root, as the router's own has. */
Object.assign(RouterLinkStub, {
  render(this: { custom: boolean; $slots: Slots }): VNode | undefined {
    const laid = this.$slots['default']?.({ href: '#', navigate: () => undefined })
    return this.custom ? laid?.[0] : h('a', laid)
  },
})

/** Lists and pickers are the device's own here, as under a finger; journeys drive the others in a browser. */
const media = window.matchMedia.bind(window)
const touched = { matches: true, addEventListener: () => undefined, removeEventListener: () => undefined }
window.matchMedia = (asked) => (asked.includes('coarse') ? (touched as never) : media(asked))

/** Files of tests share modules and a window, so each test leaves both as it found them. */
beforeEach(() => {
  localStorage.clear()
  sessionStorage.clear()
  document.body.innerHTML = ''
  setOwner(null)
  // a page has measured its clock by the first answer it got
  const now = Date.now()
  measureClock(new Response('', { headers: { Date: new Date(now).toUTCString() } }), now, now)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
// said last, done first: what is shown asks nobody once what answers it is gone
disableAutoUnmount()
enableAutoUnmount(afterEach)
