import type { Act, Schemas } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'
import { post, useOutbox } from '@/shared/outbox/outbox'
import { computed } from 'vue'

type News = Schemas['NewsIn']

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
    post({ path: pathOf(act), body, words, code: `act ${act.uid}`, mark: '' })
  }
  const isWaiting = (act: Act): boolean => waiting.value.has(pathOf(act))
  return { tell, isWaiting }
}
