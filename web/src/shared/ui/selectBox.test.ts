import { mount } from '@vue/test-utils'
import { expect, it, vi } from 'vitest'
import { h, nextTick } from 'vue'
import SelectBox from './SelectBox.vue'

it('stays open while more of its options come', async () => {
  vi.stubGlobal('matchMedia', () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }))
  const listing = (count: number) => () =>
    Array.from({ length: count }, (_, at) => h('option', { value: at }, `piece ${at}`))
  const shown = mount(
    {
      props: { count: { type: Number, required: true } },
      setup: (props: { count: number }) => () =>
        h(SelectBox, { label: 'Piece', modelValue: 0 }, listing(props.count)),
    },
    { props: { count: 1 }, attachTo: document.body },
  )
  const box = shown.get('[role=combobox]')
  await shown.get('.n-base-selection').trigger('click')
  await nextTick()
  expect(box.attributes('aria-expanded')).toBe('true')
  await shown.setProps({ count: 12 })
  await nextTick()
  expect(document.contains(box.element)).toBe(true)
  expect(box.attributes('aria-expanded')).toBe('true')
  await vi.waitFor(() => expect(document.querySelectorAll('[role=option]')).toHaveLength(12))
  document.querySelectorAll<HTMLElement>('[role=option]')[9]?.click()
  await nextTick()
  await nextTick()
  // closed, it has become one to filter in, and is there once
  const boxes = shown.findAll('[role=combobox]')
  expect(boxes.map((one) => [one.element.tagName, one.attributes('aria-expanded')])).toEqual([
    ['INPUT', 'false'],
  ])
})
