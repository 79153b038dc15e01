import type { Ref } from 'vue'
import { api, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { formOf, useUpload } from '@/shared/upload/useUpload'
import { newKey } from '@/shared/writing/newKey'

/** A list of the supplier `source`, brought in. */
export function usePriceList(source: Ref<string>) {
  const slug = useSlug()
  return useUpload<Schemas['FileOut'], Schemas['MatchIn'], Schemas['FilePreviewOut']>('price list', {
    upload: (chosen) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/price-lists', {
          params: { path: { kitchen_slug: slug.value }, header: { 'Idempotency-Key': newKey() } },
          body: { file: chosen as unknown as string, source: source.value },
          bodySerializer: formOf(chosen, { source: source.value }),
        }),
      ),
    preview: (file_id, match) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/price-lists/{file_id}/preview', {
          params: { path: { kitchen_slug: slug.value, file_id } },
          body: match,
        }),
      ),
    write: (file_id, from_row, match) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/price-lists/{file_id}/write', {
          params: {
            path: { kitchen_slug: slug.value, file_id },
            header: { 'Idempotency-Key': newKey() },
          },
          body: { from_row, match },
        }),
      ),
  })
}
