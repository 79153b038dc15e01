import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter, type RouteRecordRaw, type Router } from 'vue-router'
import App from './App.vue'
import { isOpening, notLoaded } from './router'
import { setOwner } from './shared/api/owner'
import { areLettersKeys } from './shared/frame/useKeys'
import { places } from './shared/frame/places'
import { nothingTyped } from './shared/writing/typed'
import { server } from './shared/tests/server'

beforeEach(() => {
  nothingTyped()
  localStorage.clear()
})

const kitchens = [{ slug: 'test', name: 'Test kitchen', weight_unit: 'lb', currency: 'USD' }]
const session = { signed_in: true, name: 'Maren', username: 'maren', kitchens, demo: null }

/** The application on a page with a field, come to from the page before it. */
async function open(role = 'owner', sees_money = true) {
  const ours = kitchens.map((one) => ({ ...one, role, sees_money }))
  server({ 'GET /api/session': { ...session, kitchens: ours }, 'GET /today': {} })
  const page = { template: '<input aria-label="Weight" />' }
  const opened = ['start', 'kitchen', 'people', 'audit', 'own', 'plans', 'map', 'figures']
  const ofBatch = ['log', 'pieces-table', 'cure', 'diary', 'strip']
  const names = [...places.map((place) => place.name), ...opened, ...ofBatch]
  const meta = { place: 'today', title: 'Made up' } as const
  const routes: RouteRecordRaw[] = names.map((name) => ({
    path: ofBatch.includes(name) ? `/${name}/:code` : `/${name}`,
    name,
    component: page,
    meta: name === 'start' ? { ...meta, least: 'cook' } : meta,
  }))
  const router: Router = createRouter({ history: createMemoryHistory(), routes })
  await router.push('/today')
  await router.push('/bench')
  const back = vi.spyOn(router, 'back').mockImplementation(() => undefined)
  Object.assign(router.options.history.state, { back: '/today' })
  const queryClient = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const shown = mount(App, {
    attachTo: document.body,
    global: { plugins: [router, [VueQueryPlugin, { queryClient }] as never] },
  })
  await flushPromises()
  const press = (key: string) =>
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
  return { shown, router, back, press, queryClient }
}

describe('the application', () => {
  it('says whose work a page is to those who may not do it', async () => {
    const { shown, router } = await open('helper')
    await router.push('/start')
    await flushPromises()
    expect(shown.get('main').text()).toContain('that is for cooks and owners. You are a helper')
    expect(shown.get('main').find('input').exists()).toBe(false)
    await router.push('/today')
    await flushPromises()
    expect(shown.get('main').find('input').exists()).toBe(true)
  })

  it('goes back by Esc, but never from a page where something is typed', async () => {
    const { shown, back, press } = await open()
    press('Escape')
    expect(back).toHaveBeenCalledTimes(1)
    await shown.get('input').setValue('4.1 lb')
    press('Escape')
    expect(back).toHaveBeenCalledTimes(1)
  })

  it('goes to a batch to start, and to today, by a letter', async () => {
    const { router, press } = await open()
    press('n')
    await flushPromises()
    expect(router.currentRoute.value.name).toBe('start')
    press('t')
    await flushPromises()
    expect(router.currentRoute.value.name).toBe('today')
  })

  it('leaves nothing typed by a letter, and goes nowhere by letters that are switched off', async () => {
    const { shown, router, press } = await open()
    await shown.get('input').setValue('4.1 lb')
    press('n')
    await flushPromises()
    expect(router.currentRoute.value.name).toBe('bench')
    nothingTyped()
    areLettersKeys.value = false
    press('n')
    press('?')
    await flushPromises()
    expect(router.currentRoute.value.name).toBe('bench')
    expect(document.body.textContent).toContain('Only ?, Esc and the arrows act now.')
    areLettersKeys.value = true
  })

  it('shows what stands beside a page, and which of it is open', async () => {
    const { shown, router } = await open()
    const tabs = () =>
      shown.findAll('nav[aria-label=Bench] a').map((link) => [link.text(), link.attributes('aria-current')])
    expect(tabs()).toEqual([
      ['Batches', 'page'],
      ['Map', undefined],
      ['Limits and spoons', undefined],
    ])
    await router.push('/map')
    await flushPromises()
    expect(tabs()[1]).toEqual(['Map', 'page'])
  })

  it.each([
    ['owner', true, ['Settings', 'People', 'Who did what', 'My page'], 'Verdict'],
    ['helper', false, ['Settings', 'My page'], 'Diary'],
  ])('shows a %s what is theirs of a kitchen and a batch', async (role, seesMoney, ofKitchen, last) => {
    const { shown, router } = await open(role, seesMoney)
    const links = (label: string) => shown.findAll(`nav[aria-label=${label}] a`)
    await router.push('/kitchen')
    await flushPromises()
    expect(links('Kitchen').map((link) => link.text())).toEqual(ofKitchen)
    // the code of the batch that is open goes along
    await router.push('/cure/B-02')
    await flushPromises()
    expect(links('Batch').at(-1)?.text()).toBe(last)
    expect(links('Batch')[0]?.attributes('href')).toBe('/log/B-02')
  })

  it('keeps its places where a page breaks, until another is opened', async () => {
    const { shown, router } = await open()
    const said = vi.spyOn(console, 'error').mockImplementation(() => undefined)
    const broken = {
      render() {
        throw new Error('no weight')
      },
    }
    router.addRoute({ path: '/broken', component: broken, meta: { place: 'bench', title: 'Broken' } })
    await router.push('/broken')
    await flushPromises()
    expect(shown.get('main [role=alert]').text()).toContain('“no weight”')
    expect(said).toHaveBeenCalledOnce()
    expect(shown.find('nav[aria-label=Places]').exists()).toBe(true)
    await router.push('/bench')
    await flushPromises()
    expect(shown.find('main [role=alert]').exists()).toBe(false)
  })

  it('offers to load again a page that did not come', async () => {
    const { shown } = await open()
    notLoaded.value = '/books'
    await flushPromises()
    expect(shown.text()).toContain('could not be loaded')
    notLoaded.value = ''
  })

  it('says that a page is opening where it takes its time', async () => {
    const { shown } = await open()
    expect(shown.text()).not.toContain('Opening …')
    isOpening.value = true
    await flushPromises()
    expect(shown.text()).toContain('Opening …')
    isOpening.value = false
  })

  it('shows another cook nothing of what the one before had open', async () => {
    const { shown, queryClient } = await open()
    queryClient.setQueryData(['today', 'test'], { hanging: {} })
    await shown.get('input').setValue('4.1 lb')
    setOwner({ kitchen: 'test', username: 'odo' })
    await flushPromises()
    expect(queryClient.getQueryData(['today', 'test'])).toBeUndefined()
    expect(shown.get('input').element.value).toBe('')
  })
})
