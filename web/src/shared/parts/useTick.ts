import { computed, reactive } from 'vue'
import type { Act, Schemas } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'
import { onArrived, post, useOutbox } from '@/shared/outbox/outbox'

type News = Schemas['NewsIn']

/** What has arrived and is not shown yet: an act's address, and the state its news lead to. */
const arrived = reactive(new Map<string, Act['state']>())
onArrived((letter) => {
  const sort = (letter.body as Partial<News>).sort
  if (sort && sort !== 'moved') arrived.set(letter.path, sort)
})

/** What became of an act, told through the outbox, so that it works in a garage without network. */
export function useTick() {
  const kitchen_slug = useSlug()
  const { letters } = useOutbox()
  const waiting = computed(() => new Set(letters.value.map((letter) => letter.path)))
  const pathOf = (act: Act): string => `/api/kitchens/${kitchen_slug.value}/acts/${act.uid}/news`
  function tell(act: Act, news: Partial<News> & Pick<News, 'sort'>): void {
    const body: News = {
      happened_at: new Date().toISOString(),
      due_at: null,
      with_following: false,
      taste: '',
      soak_minutes: 30,
      note: '',
      ...news,
    }
    const words = `${act.words.toLowerCase()}, ${act.code} ${act.marks.join(' · ')}`
    arrived.delete(pathOf(act))
    post({ path: pathOf(act), body, words, code: `act ${act.uid}`, mark: '' })
  }
  /** Told, and not to be told again: on its way, or there and not shown yet. */
  function isWaiting(act: Act): boolean {
    const path = pathOf(act)
    return waiting.value.has(path) || (arrived.get(path) ?? act.state) !== act.state
  }
  return { tell, isWaiting }
}
