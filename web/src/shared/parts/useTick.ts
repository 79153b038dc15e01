import { stampNow } from '@/shared/api/deviceClock'
import { computed, reactive } from 'vue'
import type { Task, Schemas } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { onArrived, post, useOutbox } from '@/shared/outbox/outbox'

type News = Schemas['NewsIn']

/** What has arrived and is not shown yet: a task's address, and the state its news lead to. */
const arrived = reactive(new Map<string, Task['state']>())
onArrived((letter) => {
  const sort = (letter.body as Partial<News>).sort
  if (sort && sort !== 'moved') arrived.set(letter.path, sort)
})

/** What became of a task, sent through the outbox, so that it works in a garage without network. */
export function useTick() {
  const kitchen_slug = useSlug()
  const { letters } = useOutbox()
  const waiting = computed(() => new Set(letters.value.map((letter) => letter.path)))
  const pathOf = (task: Task): string => `/api/kitchens/${kitchen_slug.value}/tasks/${task.uid}/news`
  function tell(task: Task, news: Partial<News> & Pick<News, 'sort'>): void {
    const body: News = {
      happened_at: stampNow(),
      due_at: null,
      with_following: false,
      taste: '',
      soak_minutes: 30,
      note: '',
      ...news,
    }
    const words = `${task.words.toLowerCase()}, ${task.code} ${task.marks.join(' · ')}`
    arrived.delete(pathOf(task))
    post({ path: pathOf(task), body, words, code: `task ${task.uid}`, mark: '' })
  }
  /** Sent, and not to be sent again: on its way, or there and not shown yet. */
  function isWaiting(task: Task): boolean {
    const path = pathOf(task)
    return waiting.value.has(path) || (arrived.get(path) ?? task.state) !== task.state
  }
  return { tell, isWaiting }
}
