import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { standIn } from '@/shared/tests/samples'
import { refused, server } from '@/shared/tests/server'
import { api, take } from './client'
import { ownerKey } from './owner'
import { useSession } from './useSession'

const { ranOut, session, signIn, signIns, signOut } = useSession()
const postMessage = vi.fn()
const kitchens = [{ slug: 'test', name: 'Test kitchen', weight_unit: 'lb', currency: 'USD' }]
const as = (username: string) => ({ signed_in: true, name: username, username, kitchens, demo: null })
const out = { signed_in: false, name: '', username: '', kitchens: [], demo: null }
const params = { path: { kitchen_slug: 'test' } }

beforeEach(() => {
  standIn('lb')
  ranOut.value = false
  postMessage.mockClear()
  vi.stubGlobal('navigator', { ...navigator, serviceWorker: { controller: { postMessage } } })
})
afterEach(() => vi.unstubAllGlobals())

/** Ask for something while the session is over. */
async function runOut(): Promise<void> {
  server({ 'GET /today': refused('signed_out', { status: 401 }) })
  await take(api.GET('/api/kitchens/{kitchen_slug}/today', { params })).catch(() => undefined)
  await flushPromises()
}

describe('a session', () => {
  it('that ran out asks to sign in at once, and what the device kept is gone', async () => {
    await runOut()
    expect(ranOut.value).toBe(true)
    expect(postMessage).toHaveBeenCalledWith('forget')
  })

  it('that ended leaves nothing of the kitchen on the device', async () => {
    server({ 'DELETE /api/session': out })
    await signOut()
    expect(postMessage).toHaveBeenCalledWith('forget')
    expect(ownerKey()).toBe('')
    await runOut()
    expect(ranOut.value).toBe(false)
  })

  it('goes on for the same cook alone: what was typed is not sent in the name of another', async () => {
    const before = signIns.value
    server({ 'GET /api/session': out, 'POST /api/session': as('odo') })
    await signIn('odo', 'secret')
    expect([signIns.value - before, ownerKey(), ranOut.value]).toEqual([0, 'test/odo', false])
    await signIn('odo', 'secret')
    expect(signIns.value - before).toBe(1)
    session.value = null
  })
})
