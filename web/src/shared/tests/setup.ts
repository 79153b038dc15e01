import { disableAutoUnmount, enableAutoUnmount } from '@vue/test-utils'
import { afterEach, beforeEach, expect, vi } from 'vitest'
import { measureClock } from '@/shared/api/deviceClock'
import { setOwner } from '@/shared/api/owner'

/** A warning is an error: the test fails in which Vue, or anything else, warned of something. */
const warned: string[] = []
console.warn = (...words: unknown[]) => void warned.push(words.join(' '))
afterEach(() => expect(warned.splice(0)).toEqual([]))

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
