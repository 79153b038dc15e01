import { api, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { formOf, useUpload } from '@/shared/upload/useUpload'
import { newKey } from '@/shared/writing/newKey'

export type HistoryMatch = Schemas['HistoryMatchIn']

/** A spreadsheet of past batches, brought in. */
export function useHistory() {
  const slug = useSlug()
  return useUpload<Schemas['HistoryFileOut'], HistoryMatch, Schemas['HistoryPreviewOut']>('past batches', {
    upload: (chosen) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/history', {
          params: { path: { kitchen_slug: slug.value }, header: { 'Idempotency-Key': newKey() } },
          body: { file: chosen as unknown as string },
          bodySerializer: formOf(chosen),
        }),
      ),
    preview: (file_id, match) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/history/{file_id}/preview', {
          params: { path: { kitchen_slug: slug.value, file_id } },
          body: match,
        }),
      ),
    write: (file_id, from_row, match) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/history/{file_id}/write', {
          params: {
            path: { kitchen_slug: slug.value, file_id },
            header: { 'Idempotency-Key': newKey() },
          },
          body: { from_row, match },
        }),
      ),
  })
}
