import { useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { api, type Problem, refusal, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'
import { newKey } from '@/shared/writing/newKey'

export type HistoryFile = Schemas['HistoryFileOut']
export type HistoryMatch = Schemas['HistoryMatchIn']

/** A spreadsheet of past batches: uploaded, matched, looked over, and written piece by piece once confirmed. */
export function useHistory() {
  const slug = useSlug()
  const queries = useQueryClient()
  const file = ref<HistoryFile | null>(null)
  const match = ref<HistoryMatch | null>(null)
  const refused = ref<Problem | null>(null)
  const busy = ref<'' | 'reading' | 'writing'>('')

  async function trying(what: typeof busy.value, act: () => Promise<void>): Promise<void> {
    busy.value = what
    refused.value = await refusal(act)
    busy.value = ''
  }

  const upload = (chosen: File): Promise<void> =>
    trying('reading', async () => {
      file.value = match.value = null
      const answer = await take(
        api.POST('/api/kitchens/{kitchen_slug}/history', {
          params: { path: { kitchen_slug: slug.value }, header: { 'Idempotency-Key': newKey() } },
          body: { file: chosen as unknown as string },
          bodySerializer: () => {
            const form = new FormData()
            form.append('file', chosen)
            return form
          },
        }),
      )
      file.value = answer
      match.value = structuredClone(answer.match)
    })

  const { last: preview, problem: unread } = useAsking(
    'past batches',
    () =>
      match.value && file.value && !file.value.is_done ? { id: file.value.id, match: match.value } : null,
    ({ id, match }) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/history/{file_id}/preview', {
          params: { path: { kitchen_slug: slug.value, file_id: id } },
          body: match,
        }),
      ),
    { wait: 250 },
  )
  watch(match, () => (refused.value = null), { deep: true })

  /** Each piece from where the last one ended; a broken connection is gone on from there. */
  const write = (): Promise<void> =>
    trying('writing', async () => {
      const confirmed = match.value
      while (confirmed && file.value && !file.value.is_done) {
        file.value = await take(
          api.POST('/api/kitchens/{kitchen_slug}/history/{file_id}/write', {
            params: {
              path: { kitchen_slug: slug.value, file_id: file.value.id },
              header: { 'Idempotency-Key': newKey() },
            },
            body: { from_row: file.value.next_row, match: confirmed },
          }),
        )
      }
      void queries.invalidateQueries()
    })

  return { file, match, preview, refused, unread, busy, upload, write }
}
