import { describe, expect, it } from 'vitest'

/**
 * Controls and containers come from Naive UI through what stands in `shared/ui`. Only drawings of our own, which
 * are worked by touch, hold native ones elsewhere; docs/how-it-works.md says why.
 */
const OWN_DRAWINGS = [
  'shared/strip/',
  'places/bench/weigh/',
  'places/bench/map/StoreDrawing.vue',
  'places/buy/case/ChipRow.vue',
  'places/buy/case/PadKeys.vue',
  'places/buy/case/TagWords.vue',
]
const files = import.meta.glob<string>('/src/**/*.vue', { query: '?raw', import: 'default', eager: true })
const NATIVE = /<(button|select|input|textarea|table|details|datalist|dialog)\b/g

describe('native controls', () => {
  it('stand in shared/ui and in the drawings of our own only', () => {
    const found = Object.entries(files)
      .filter(([path]) => !path.startsWith('/src/shared/ui/'))
      .filter(([path]) => !OWN_DRAWINGS.some((own) => path.includes(own)))
      .flatMap(([path, text]) => [...text.matchAll(NATIVE)].map((one) => `${path}: ${one[0]}`))
    expect(found).toEqual([])
  })

  it('are looked for at all', () => {
    expect(Object.keys(files).length).toBeGreaterThan(150)
    expect(Object.values(files).filter((text) => text.match(NATIVE)).length).toBeGreaterThan(5)
  })
})
