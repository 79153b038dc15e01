import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { computed, watch, type Ref } from 'vue'
import { api, type Pieces, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'
import { useDraft } from '@/shared/writing/useDraft'
import { blankRecipe, changePiece, type Cured, curedAs, type CuredPiece, shows } from './recipes'

export type DeskFacts = Schemas['DeskFactsOut']

/** All the desk knows before a piece is laid on it. */
export function useDeskFacts() {
  return useKitchenQuery('cure-desk', '/cure-desk')
}

const blankWishes = (): Schemas['WishesIn'] => ({
  turn_days: 1,
  dry_hours: 12,
  soak_minutes: null,
  reseason: false,
  spice_day: null,
})

/** The pieces on the desk, each with its own recipe, and what the desk answers as one types. */
export function useDesk(
  code: Ref<string>,
  pieces: Ref<Pieces | undefined>,
  busy: Ref<Set<string>>,
  facts: Ref<DeskFacts | undefined>,
) {
  const kitchen_slug = useSlug()
  const { draft, clear } = useDraft(`${code.value}:desk`, () => ({
    chosen: '',
    laid: [] as CuredPiece[],
    left: [] as string[],
    scale: localStorage.getItem('dolmetsch:cure-scale') ?? '',
    in_at: '',
    wishes: blankWishes(),
  }))

  const asked = computed(() => ({ pieces: draft.laid, scale: draft.scale }))
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

  /** What decides the usual curing salt of a piece: as it is set here, else as it is known. */
  function curedOf(laid: Pick<CuredPiece, 'mark'> & Partial<CuredPiece>): Cured {
    const known = (answer.value?.pieces ?? pieces.value?.pieces ?? []).find((one) => one.mark === laid.mark)
    return curedAs(laid, known)
  }

  /** Lay on the desk what lives and is in no cure; what was typed stays. */
  watch(
    [pieces, busy, facts],
    () => {
      const schools = facts.value?.schools
      if (!schools) return
      const free = (pieces.value?.pieces ?? []).filter((piece) => !busy.value.has(piece.mark))
      draft.laid = free.map(
        (piece) =>
          draft.laid.find((one) => one.mark === piece.mark) ?? {
            mark: piece.mark,
            recipe: blankRecipe(schools, 'measured', curedOf({ mark: piece.mark })),
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
  watch(
    () => draft.scale,
    (scale) => localStorage.setItem('dolmetsch:cure-scale', scale),
  )

  /** What was known of each piece when its recipe was begun: what changes since, its usual dose follows. */
  const begun = new Map<string, Cured>()
  function follow(schools: DeskFacts['schools'], mark: string, now: Cured): void {
    const before = begun.get(mark)
    begun.set(mark, now)
    const laid = draft.laid.find((one) => one.mark === mark)
    if (!laid) return
    if (before && JSON.stringify(before) !== JSON.stringify(now))
      laid.recipe = changePiece(schools, laid.recipe, before, now)
    // cured in a way that usually leads to one thing
    if (now.course === null) laid.course = schools.find((one) => one.key === laid.recipe.school)?.course ?? ''
  }
  const cured = computed(() => draft.laid.map((one) => ({ mark: one.mark, ...curedOf(one) })))
  watch(
    cured,
    (all) => {
      if (facts.value) for (const { mark, ...now } of all) follow(facts.value.schools, mark, now)
    },
    { immediate: true },
  )

  /** A piece is left out this time, or goes in after all. */
  function toggle(mark: string): void {
    draft.left = draft.left.includes(mark) ? draft.left.filter((one) => one !== mark) : [...draft.left, mark]
  }
  /** All pieces are cured by the recipe of the one in sight. */
  function sameForAll(): void {
    const from = current.value
    if (!from) return
    // one brine for all is one tub, which the cook may part again
    if (shows(facts.value?.schools ?? [], from.recipe.school, 'tub')) from.tub ||= '1'
    for (const one of draft.laid) {
      one.recipe = JSON.parse(JSON.stringify(from.recipe))
      one.tub = from.tub
    }
  }

  const shown = computed(() => answer.value?.pieces.find((one) => one.mark === draft.chosen) ?? null)
  const place = computed(() => draft.laid.findIndex((one) => one.mark === draft.chosen))
  return { draft, clear, current, going, answer, problem, shown, place, curedOf, toggle, sameForAll }
}
