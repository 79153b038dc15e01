import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { defineComponent } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { useInAddress } from './useInAddress'

/** A page that picks its piece by the address, opened at `at`. */
async function open(at: string) {
  const page = { template: '<i />' }
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/diary', component: page }],
  })
  await router.push(at)
  const seen: { piece?: ReturnType<typeof useInAddress<string>> } = {}
  mount(
    defineComponent({
      setup: () => {
        seen.piece = useInAddress('piece', 'all')
        return () => null
      },
    }),
    { global: { plugins: [router] } },
  )
  const { piece } = seen
  if (!piece) throw new Error('the page did not open')
  return { router, piece }
}

describe('a filter in the address', () => {
  it('is read from it, and the usual one stands for none', async () => {
    expect((await open('/diary')).piece.value).toBe('all')
    expect((await open('/diary?piece=B')).piece.value).toBe('B')
  })

  it('is written to it beside what else is there, and left out where it is the usual one', async () => {
    const { router, piece } = await open('/diary?day=3')
    piece.value = 'A'
    await flushPromises()
    expect(router.currentRoute.value.fullPath).toBe('/diary?day=3&piece=A')
    piece.value = 'all'
    await flushPromises()
    expect(router.currentRoute.value.fullPath).toBe('/diary?day=3')
  })
})
