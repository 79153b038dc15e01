import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { useOutbox } from '@/shared/outbox/outbox'
import { task } from '@/shared/tests/bench'
import { standIn } from '@/shared/tests/samples'
import { routed } from '@/shared/tests/router'
import { around, plain, refused, server } from '@/shared/tests/server'
import DiaryPlace from './DiaryPlace.vue'
import NoteForm from './NoteForm.vue'
import PhotoForm from './PhotoForm.vue'
import PlanForm from './PlanForm.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
  window.dispatchEvent(new StorageEvent('storage', { key: null }))
})
afterEach(() => vi.unstubAllGlobals())

const leaf = (title: string, more: Partial<Schemas['LeafOut']> = {}): Schemas['LeafOut'] => ({
  sort: 'entry',
  happened_at: '2026-03-02T09:00:00Z',
  recorded_at: '2026-03-02T09:00:00Z',
  by: 'Maren',
  title,
  lines: [],
  marks: [],
  is_wrong: false,
  photo: null,
  ...more,
})
const diary = (leaves: Schemas['LeafOut'][]): Schemas['DiaryOut'] => ({
  code: 'J-01',
  name: 'Test belly',
  cut: 'belly',
  pieces: ['A', 'B'],
  leaves,
})
const open = async (result: Schemas['DiaryOut']) => {
  server({ 'GET /batches/J-01/diary': result, 'GET /plan?days=400&code=J-01': { tasks: [task()] } })
  const shown = mount(DiaryPlace, { props: { code: 'J-01' }, global: routed() })
  await vi.waitFor(() => expect(shown.find('.book').exists()).toBe(true))
  return shown
}

describe('the diary', () => {
  const leaves = [
    leaf('Trimmed', { lines: ['A 4 lb', 'B 3 lb'] }),
    leaf('Put in the cure', { sort: 'cure', marks: ['A'] }),
    leaf('Turned', { sort: 'task', marks: ['B'], happened_at: '2026-03-03T09:00:00Z', by: 'Odo' }),
    leaf('Smoked', { is_wrong: true, marks: ['A'], happened_at: '2026-03-03T10:00:00Z' }),
  ]

  it('tells what happened day by day, who did it, and what was wrong', async () => {
    const shown = await open(diary(leaves))
    expect(shown.findAll('.day')).toHaveLength(2)
    expect(plain(shown.findAll('.day')[0]?.text() ?? '')).toContain('TrimmedMaren')
    expect(shown.findAll('.day .line').map((line) => line.text())).toEqual(['A 4 lb', 'B 3 lb'])
    expect(plain(shown.get('.wrong').text())).toContain('corrected later')
    expect(shown.get('[aria-label="Still to come"]').text()).toContain('Turn and rub')
  })

  it('tells of one piece what was done to it and to all', async () => {
    const shown = await open(diary(leaves))
    await shown.findAll('.marks button')[2]?.trigger('click')
    expect(shown.findAll('.day li b').map((title) => title.text())).toEqual(['Trimmed', 'Turned'])
    await shown.findAll('.marks button')[0]?.trigger('click')
    expect(shown.findAll('.day li')).toHaveLength(4)
  })

  it('shows a photo by what it shows, and opens it large', async () => {
    const photo = { id: 1, width: 640, height: 480, large: '/photos/1', small: '/photos/1/small' }
    const shown = await open(diary([leaf('Photo', { sort: 'photo', lines: ['day four'], photo })]))
    expect(shown.get('img').attributes()).toMatchObject({ src: '/photos/1/small', alt: 'day four' })
    expect(shown.get('img').element.parentElement?.getAttribute('href')).toBe('/photos/1')
  })
})

describe('a note', () => {
  it('waits on the device until it is sent, and leaves a blank sheet', async () => {
    server({ 'POST /batches/J-01/notes': null })
    const shown = mount(NoteForm, { props: { code: 'J-01', pieces: ['A', 'B'] }, global: around() })
    await shown.get('textarea').setValue('   ')
    await shown.get('form').trigger('submit')
    expect(useOutbox().letters.value).toEqual([])
    await shown.get('textarea').setValue('  Smells of bay. ')
    await shown.get('select').setValue('B')
    await shown.get('form').trigger('submit')
    await flushPromises()
    expect(useOutbox().letters.value.map((letter) => letter.body)).toMatchObject([
      { text: 'Smells of bay.', mark: 'B' },
    ])
    expect(shown.get('textarea').element.value).toBe('')
    expect(shown.get('[role="status"]').text()).toContain('Note saved.')
  })

  it('half written is still there when the page is opened anew', async () => {
    const props = { code: 'J-01', pieces: ['A'] }
    await mount(NoteForm, { props, global: around() }).get('textarea').setValue('Firm at the')
    expect(mount(NoteForm, { props, global: around() }).get('textarea').element.value).toBe('Firm at the')
  })
})

describe('a photo', () => {
  const choose = async (answer: unknown) => {
    const calls = server({ 'POST /batches/J-01/photos': answer })
    const shown = mount(PhotoForm, { props: { code: 'J-01', pieces: ['A'] }, global: around() })
    expect(shown.text()).toContain('up to 15 MB')
    const input = shown.get<HTMLInputElement>('input[type="file"]')
    const file = new File(['x'], 'slab.jpg', { type: 'image/jpeg', lastModified: 5 })
    Object.defineProperty(input.element, 'files', { value: [file], configurable: true })
    Object.defineProperty(input.element, 'value', { value: '', writable: true })
    await input.trigger('change')
    await flushPromises()
    await shown.get('input[maxlength]').setValue('day four')
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(calls).toHaveLength(1))
    await flushPromises()
    return { calls, shown }
  }

  it('goes with what it shows, under a key', async () => {
    const { calls, shown } = await choose(diary([]))
    expect(String(calls[0]?.body)).toContain('day four')
    expect(calls[0]?.key).toMatch(/^[0-9a-f-]{36}$/)
    await vi.waitFor(() => expect(shown.text()).toContain('Saved.'))
    expect(shown.emitted('kept')).toHaveLength(1)
    expect(shown.find('input[maxlength]').exists()).toBe(false)
  })

  it('that is none is said, and what was written about it stays', async () => {
    const result = refused('no_photo', { detail: 'slab.jpg cannot be read as JPEG, PNG or WebP.' })
    const { shown } = await choose(result)
    await vi.waitFor(() => expect(shown.get('[role="alert"]').text()).toContain('cannot be read as JPEG'))
    expect(shown.get<HTMLInputElement>('input[maxlength]').element.value).toBe('day four')
  })
})

describe('a task planned by hand', () => {
  it('needs a time, and a word where it is something else', async () => {
    const calls = server({ 'POST /batches/J-01/tasks': { tasks: [] } })
    const shown = mount(PlanForm, { props: { code: 'J-01', pieces: ['A'] }, global: around() })
    await shown.get('[role="button"]').trigger('keydown', { key: 'Enter' })
    expect(shown.get('button').attributes('disabled')).toBeDefined()
    await shown.get('select').setValue('other')
    await shown.get('input[maxlength]').setValue('call the harbour')
    await shown.get('input[type="datetime-local"]').setValue('2026-03-05T10:00')
    await shown.get('form').trigger('submit')
    await flushPromises()
    expect(calls[0]?.body).toEqual({
      kind: 'other',
      words: 'call the harbour',
      marks: [],
      due_at: new Date('2026-03-05T10:00').toISOString(),
      minutes: null,
    })
  })
})
