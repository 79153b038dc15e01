import { mount, RouterLinkStub } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { standIn, summary } from '@/shared/tests/samples'
import BatchRow from '@/shared/parts/BatchRow.vue'

beforeEach(() => standIn('lb'))

const row = (more: Parameters<typeof summary>[0] = {}): string =>
  mount(BatchRow, {
    props: { batch: summary(more) },
    global: { components: { RouterLink: RouterLinkStub } },
  })
    .text()
    .replace(/\s+/g, ' ')

describe('a batch in a list', () => {
  it('says what it weighs and costs at its stage, and what usually comes next', () => {
    const result = row()
    for (const words of [
      '$2.94',
      'a pound, trimmed',
      '8.00 lb · 3.629 kg',
      'A · B',
      'Record the cure',
      'Cured?',
    ]) {
      expect(result).toContain(words)
    }
    expect(row({ next: null })).toContain('Record a step')
  })

  it('says how a finished one stands beside the shop, in words and not by a sign', () => {
    const done = { is_finished: true, next: null, shop_name: 'good shop bacon' }
    const saved = (saved_on_batch: string, more = {}) => row({ ...done, saved_on_batch, ...more })
    expect(saved('1.20')).toContain('$1.20 less on the batch than the good shop bacon')
    expect(saved('-0.64')).toContain('$0.64 more on the batch than the good shop bacon')
    expect(saved('1.20')).toContain('See the verdict')
    expect(saved('1.20', { is_finished: false })).not.toContain('on the batch')
  })

  it('does not name the whole lot as a piece', () => {
    expect(row({ pieces: ['lot'] })).not.toContain('lot')
  })
})
