import { useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref, shallowRef, ref, watch } from 'vue'
import { type Problem, refusal, type Schemas } from '@/shared/api/client'
import { useAsking } from '@/shared/asking/useAsking'

/** What every table that was uploaded shows of itself. */
export type Uploaded = Omit<Schemas['HistoryFileOut'], 'match'>

/** What every kind of table calls: how it is uploaded, looked over, and written from a row on. */
export interface UploadCalls<Kept, Match, Preview> {
  upload: (chosen: File) => Promise<Kept>
  preview: (id: number, match: Match) => Promise<Preview>
  write: (id: number, fromRow: number, match: Match) => Promise<Kept>
}

/** A table brought in: uploaded, its columns matched, looked over, and written in pieces once confirmed. */
export function useUpload<Kept extends Uploaded & { match: Match }, Match, Preview>(
  name: string,
  calls: UploadCalls<Kept, Match, Preview>,
) {
  const queries = useQueryClient()
  const kept = shallowRef<Kept | null>(null)
  const match = ref(null) as Ref<Match | null>
  const refused = ref<Problem | null>(null)
  const busy = ref<'' | 'reading' | 'writing'>('')
  const begun = computed(() => (kept.value?.next_row ?? 0) > 0)

  async function trying(what: typeof busy.value, act: () => Promise<void>): Promise<void> {
    busy.value = what
    refused.value = await refusal(act)
    busy.value = ''
  }

  function forget(): void {
    kept.value = match.value = null
  }

  const upload = (chosen: File): Promise<void> =>
    trying('reading', async () => {
      forget()
      const answer = await calls.upload(chosen)
      kept.value = answer
      match.value = structuredClone(answer.match)
    })

  const asking = useAsking(
    name,
    () =>
      match.value && kept.value && !kept.value.is_done ? { id: kept.value.id, match: match.value } : null,
    ({ id, match }) => calls.preview(id, match),
    { wait: 250 },
  )
  // another match is another question: what was refused before is no longer said
  watch(match, () => (refused.value = null), { deep: true })
  /** What went wrong last: with the file, or with looking it over. */
  const problem = computed(() => refused.value ?? asking.problem.value)

  /** Each piece from where the last one ended; a broken connection is gone on from there. */
  const write = (): Promise<void> =>
    trying('writing', async () => {
      const confirmed = match.value
      while (confirmed && kept.value && !kept.value.is_done) {
        kept.value = await calls.write(kept.value.id, kept.value.next_row, confirmed)
      }
      void queries.invalidateQueries()
    })

  return {
    kept,
    match,
    busy,
    begun,
    problem,
    preview: asking.last,
    isLooking: asking.isAsking,
    look: asking.again,
    forget,
    upload,
    write,
  }
}

/** A chosen file, and texts beside it, as the form a server takes it in. */
export function formOf(chosen: File, texts: Record<string, string> = {}): () => FormData {
  return () => {
    const form = new FormData()
    form.append('file', chosen)
    for (const [name, text] of Object.entries(texts)) form.append(name, text)
    return form
  }
}
