import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Task } from '@/shared/api/client'
import { task } from '@/shared/tests/bench'
import { standIn } from '@/shared/tests/samples'
import { around, plain, server } from '@/shared/tests/server'
import TaskRow from '@/shared/parts/TaskRow.vue'
import ToDo from './ToDo.vue'

const hour = 3_600_000
beforeEach(() => {
  standIn('lb')
  localStorage.clear()
  window.dispatchEvent(new StorageEvent('storage', { key: null }))
  vi.useFakeTimers({ now: new Date(2026, 2, 3, 9, 0), toFake: ['Date'] })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const at = (hours: number): string => new Date(Date.now() + hours * hour).toISOString()

let uid = 0
/** A row, and what it sent. */
const row = (more: Partial<Task> = {}, answer: unknown = { tasks: [] }) => {
  const result = task({ uid: `row-${++uid}`, due_at: at(2), ...more })
  const calls = server({ [`POST /tasks/${result.uid}/news`]: answer })
  const shown = mount(TaskRow, { props: { task: result }, global: around() })
  return { shown, news: () => calls.map((call) => call.body) }
}

describe('one thing to do', () => {
  it('says what, of which pieces, where, which of how many, and when', () => {
    const result = plain(row({ text: 'day 4' }).shown.text())
    expect(result).toContain('Turn and rub')
    expect(result).toContain('piece A · B')
    expect(result).toContain('Fridge 1: shelf 2; 3 of 8; day 4')
    expect(result).toContain('due 11:00')
    expect(plain(row({ marks: ['lot'], of: 1, count: 1 }).shown.text())).not.toContain('piece')
    expect(plain(row({ is_late: true, due_at: at(-24) }).shown.text())).toContain('▲ late: was due Mon 2 Mar')
    const done = row({ state: 'done', done_at: at(-1), by: 'Odo', taste: 'right', words: 'Taste' }).shown
    expect(plain(done.text())).toContain('Taste: just right')
    expect(plain(done.text())).toContain('by Odo')
  })

  it('is ticked off with one touch, once, and can be taken back', async () => {
    const { shown, news } = row()
    await shown.get('.ring').trigger('click')
    await flushPromises()
    await shown.get('.ring').trigger('click')
    await flushPromises()
    expect(news()).toMatchObject([{ sort: 'done', taste: '' }])
    const undone = row({ state: 'done', done_at: at(-1) })
    await undone.shown.get('.ring').trigger('click')
    await flushPromises()
    expect(undone.news()).toMatchObject([{ sort: 'open' }])
  })

  it('stays ticked without network, and says that it waits', async () => {
    const { shown } = row({}, null)
    await shown.get('.ring').trigger('click')
    await flushPromises()
    expect(shown.text()).toContain('done here, waiting to be sent')
    expect(shown.find('.more').exists()).toBe(false)
  })

  it('asks how it tastes, and how long to soak what is too salty', async () => {
    const { shown, news } = row({ kind: 'taste', words: 'Taste: fry a sliver' })
    await shown.get('.ring').trigger('click')
    expect(news()).toEqual([])
    expect(shown.findAll('.tastes button').map((word) => word.text())).toEqual([
      'too salty',
      'just right',
      'flat',
    ])
    await shown.get('.tastes input').setValue(45)
    await shown.get('.tastes button').trigger('click')
    await flushPromises()
    expect(news()).toMatchObject([{ sort: 'done', taste: 'salty', soak_minutes: 45 }])
  })

  it('is moved only by the cook, with or without what comes after it', async () => {
    const { shown, news } = row()
    await shown.get('.more').trigger('click')
    await shown.get('.open form').trigger('submit')
    expect(news()).toEqual([])
    await shown.get('input[type="datetime-local"]').setValue('2026-03-05T10:00')
    await shown.get('[role="checkbox"]').trigger('click')
    await shown.get('.open form').trigger('submit')
    await flushPromises()
    const due = new Date('2026-03-05T10:00').toISOString()
    expect(news()).toMatchObject([{ sort: 'moved', due_at: due, with_following: false }])
  })

  it('can be dropped', async () => {
    const { shown, news } = row()
    await shown.get('.more').trigger('click')
    await shown.findAll('.open form button')[1]?.trigger('click')
    await flushPromises()
    expect(news()).toMatchObject([{ sort: 'dropped' }])
  })
})

describe('what is due', () => {
  const open = async (tasks: Task[] | null) => {
    server({ 'GET /plan?days=2&code=': tasks && { tasks } })
    const shown = mount(ToDo, { global: around() })
    await flushPromises()
    await vi.waitFor(() => expect(shown.text()).not.toContain('Loading'))
    return shown
  }
  const listed = (shown: ReturnType<typeof mount>, name: string): string[] =>
    shown.findAll(`[aria-label="${name}"] .words`).map((words) => words.text())

  it('stands late first, then today, then what is done; tomorrow on request', async () => {
    const shown = await open([
      task({ uid: '1', words: 'Rinse', is_late: true, due_at: at(-20) }),
      task({ uid: '2', words: 'Turn', due_at: at(3) }),
      task({ uid: '3', words: 'Check', due_at: at(20) }),
      task({ uid: '5', words: 'Smoke', due_at: at(40) }),
      task({ uid: '4', words: 'Spice', state: 'done', done_at: at(-2) }),
    ])
    const headings = shown.findAll('ul').map((list) => list.attributes('aria-label'))
    expect(headings).toEqual(['Late', 'Today', 'Done'])
    expect([listed(shown, 'Late'), listed(shown, 'Today'), listed(shown, 'Done')]).toEqual([
      ['Rinse'],
      ['Turn'],
      ['Spice'],
    ])
    await shown.get('button[aria-expanded]:not(.more)').trigger('click')
    expect(listed(shown, 'Tomorrow')).toEqual(['Check'])
  })

  it('ticks the same turn of several pieces of a batch with one touch, but no tasting', async () => {
    const [first, second] = [task({ uid: 'same-1', due_at: at(1) }), task({ uid: 'same-2', due_at: at(2) })]
    const tastes = [1, 2].map((place) =>
      task({ uid: `taste-${place}`, kind: 'taste', words: 'Taste', due_at: at(1) }),
    )
    const news = [first, second].map((one) => [`POST /tasks/${one.uid}/news`, { tasks: [] }])
    const calls = server({
      'GET /plan?days=2&code=': { tasks: [first, second, ...tastes] },
      ...Object.fromEntries(news),
    })
    const shown = mount(ToDo, { global: around() })
    await vi.waitFor(() => expect(shown.text()).toContain('All 2 done: Turn and rub'))
    expect(shown.text()).not.toContain('done: Taste')
    const all = shown.findAll('button').find((one) => one.text().startsWith('All 2 done'))
    await all?.trigger('click')
    await vi.waitFor(() => expect(calls.filter((call) => call.method === 'POST')).toHaveLength(2))
    expect(calls.filter((call) => call.method === 'POST').map((call) => call.path)).toEqual([
      '/tasks/same-1/news',
      '/tasks/same-2/news',
    ])
  })

  it('says so when nothing is, and when nothing is known', async () => {
    expect((await open([])).text()).toContain('Nothing is due today.')
    expect((await open(null)).text()).toContain('No connection')
  })

  it('goes along in a calendar', async () => {
    expect((await open([])).get('a').attributes('href')).toBe('/api/kitchens/test/plan.ics')
  })
})
