import { mount } from '@vue/test-utils'
import { nextTick } from 'vue'
import { describe, expect, it } from 'vitest'
import type { Role } from './roles'
import { vMay } from './vMay'
import { useSession } from '@/shared/api/useSession'
import { kitchenInfo, sessionOf } from '@/shared/tests/samples'

describe('what is not for one’s role', () => {
  it('is not shown, and comes back with the role', async () => {
    const page = mount({
      directives: { may: vMay },
      template: '<i v-may:helper>weigh</i><b v-may:cook>buy</b><u v-may:owner>people</u>',
    })
    const shownTo = async (role: Role): Promise<string[]> => {
      useSession().session.value = sessionOf({ kitchens: [kitchenInfo({ role })] })
      await nextTick()
      return page
        .findAll('i, b, u')
        .flatMap((one) => ('data-not-theirs' in one.attributes() ? [] : one.text()))
    }
    expect(await shownTo('reader')).toEqual([])
    expect(await shownTo('helper')).toEqual(['weigh'])
    expect(await shownTo('owner')).toEqual(['weigh', 'buy', 'people'])
    expect(await shownTo('cook')).toEqual(['weigh', 'buy'])
    page.unmount()
    useSession().session.value = null
  })
})
