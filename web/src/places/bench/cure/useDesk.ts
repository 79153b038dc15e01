import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, watch, type Ref } from 'vue'
import { api, type Pieces, ProblemError, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'
import { useAsking } from '@/shared/asking/useAsking'
import { useDraft } from '@/shared/writing/useDraft'
import { blankRecipe, type CuredPiece } from './recipes'

export type DeskFacts = Schemas['DeskFactsOut']

/** All the desk knows before a piece is laid on it. */
export function useDeskFacts() {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  const queryKey = computed(() => ['cure-desk', kitchen_slug.value])
  const query = useQuery<DeskFacts, ProblemError>({
    queryKey,
    queryFn: () =>
      take(
        api.GET('/api/kitchens/{kitchen_slug}/cure-desk', {
          params: { path: { kitchen_slug: kitchen_slug.value } },
        }),
      ),
  })
  const put = (facts: DeskFacts): void => void queries.setQueryData(queryKey.value, facts)
  return { ...query, put }
}

const blankWishes = (): Schemas['WishesIn'] => ({
  turn_days: 1,
  dry_hours: 12,
  soak_minutes: null,
  reseason: false,
  spice_day: null,
})

/** The pieces on the desk, each with its own recipe, and what the desk answers as one types. */
export function useDesk(code: Ref<string>, pieces: Ref<Pieces | undefined>, busy: Ref<Set<string>>) {
  const kitchen_slug = useSlug()
  const { draft, clear } = useDraft(`${code.value}:desk`, () => ({
    chosen: '',
    laid: [] as CuredPiece[],
    left: [] as string[],
    scale: localStorage.getItem('dolmetsch:cure-scale') ?? '',
    in_at: '',
    wishes: blankWishes(),
  }))

  /** Lay on the desk what lives and is in no cure; what was typed stays. */
  watch(
    [pieces, busy],
    () => {
      const free = (pieces.value?.pieces ?? []).filter((piece) => !busy.value.has(piece.mark))
      draft.laid = free.map(
        (piece) =>
          draft.laid.find((one) => one.mark === piece.mark) ?? {
            mark: piece.mark,
            recipe: blankRecipe(),
            product: '',
            course: '',
            thickness: '',
            skin: '',
            out_day: null,
            mix: null,
            tub: '',
            is_kept_warm: false,
          },
      )
      if (!draft.laid.some((one) => one.mark === draft.chosen)) draft.chosen = draft.laid[0]?.mark ?? ''
    },
    { immediate: true },
  )
  const current = computed(() => draft.laid.find((one) => one.mark === draft.chosen) ?? null)
  const going = computed(() => draft.laid.filter((one) => !draft.left.includes(one.mark)))
  const asked = computed(() => ({ pieces: draft.laid, scale: draft.scale }))

  watch(
    () => draft.scale,
    (scale) => localStorage.setItem('dolmetsch:cure-scale', scale),
  )

  const { last: answer, problem } = useAsking(
    'cure desk',
    () => (draft.laid.length ? { code: code.value, desk: asked.value } : null),
    ({ code, desk }) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/cure-desk', {
          params: { path: { kitchen_slug: kitchen_slug.value, code } },
          body: desk,
        }),
      ),
    { wait: 180 },
  )

  const shown = computed(() => answer.value?.pieces.find((one) => one.mark === draft.chosen) ?? null)
  const place = computed(() => draft.laid.findIndex((one) => one.mark === draft.chosen))
  return { draft, clear, current, going, answer, problem, shown, place }
}
