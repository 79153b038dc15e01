import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { stampNow } from '@/shared/api/deviceClock'
import { useQueryClient } from '@tanstack/vue-query'
import { type Ref } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { renewShown } from '@/shared/api/renewShown'
import { useSlug } from '@/shared/api/useSlug'
import { post } from '@/shared/outbox/outbox'
import { type Fate, fateWord } from '@/shared/parts/fates'

export type Larder = Schemas['LarderOut']
export type Pack = Schemas['PackOut']
export type PackPage = Schemas['PackPage']
export type Stack = Schemas['StackOut']
export type TakingIn = Schemas['TakingIn']
export type MoveIn = Schemas['MoveIn']

/** One pack with its history. */
export function usePack(code: Ref<string>, mark: Ref<string>) {
  return useKitchenQuery('pack', '/packs/{code}/{mark}', () => ({
    path: { code: code.value, mark: mark.value },
  }))
}

/** Taking from a pack and moving it: kept on the device first, so that it works without a connection. */
export function useTaking() {
  const kitchen_slug = useSlug()
  const path = (pack: { code: string; mark: string }, what: string): string =>
    `/api/kitchens/${kitchen_slug.value}/packs/${encodeURIComponent(pack.code)}/${encodeURIComponent(pack.mark)}/${what}`
  const letter = (pack: { code: string; mark: string }, words: string, body: object, what: string): void => {
    post({ path: path(pack, what), body, words: `${pack.mark} ${words}`, code: pack.code, mark: pack.mark })
  }
  function takeOut(pack: { code: string; mark: string }, body: Partial<TakingIn> & { fate: Fate }): void {
    // when it was taken, not when it could be sent
    const at = stampNow()
    letter(pack, fateWord(body.fate), { ...body, at }, 'takings')
  }
  function move(pack: { code: string; mark: string }, body: MoveIn): void {
    const words = body.sort === 'opened' ? 'opened' : `put into ${body.store}`
    letter(pack, words, { ...body, at: stampNow() }, 'moves')
  }
  function weighAgain(pack: { code: string; mark: string }, weight: string): void {
    letter(pack, `weighs ${weight}`, { weight, at: stampNow() }, 'weighings')
  }
  return { takeOut, move, weighAgain }
}

/** Taking something back, and counting the shelves. */
export function useLarderWrites() {
  const queries = useQueryClient()
  const canceling = useKitchenWrite<'/takings/{taken_id}/cancel', { id: number; reason: string }>(
    'cancel-taking',
    '/takings/{taken_id}/cancel',
    { path: ({ id }) => ({ taken_id: id }), body: ({ reason }) => ({ reason }) },
  )
  const counting = useKitchenWrite('count-shelves', '/larder/counts')
  const packCanceling = useKitchenWrite<
    '/packs/{code}/{mark}/cancel',
    { code: string; mark: string; reason: string }
  >('cancel-pack', '/packs/{code}/{mark}/cancel', {
    path: ({ code, mark }) => ({ code, mark }),
    body: ({ reason }) => ({ reason }),
  })
  return { canceling, counting, packCanceling, renew: () => renewShown(queries) }
}
