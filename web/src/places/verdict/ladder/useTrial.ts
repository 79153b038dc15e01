import { computed, type ComputedRef, reactive, ref, watch } from 'vue'
import { api, type Policy, type Schemas, take, type Verdict } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'
import { useUnits } from '@/shared/quantity/useUnits'
import { provideFormFacts } from '@/shared/writing/formFacts'

type Trial = Schemas['TrialOut']
export type Dials = {
  tag: string
  yields: Record<string, string>
  minutes: string
  portion: string
  shops: string[]
  policy: Policy
}

/** The dials as the record has them. */
export function dialsOf(verdict: Verdict, unit: 'lb' | 'kg'): Dials {
  const { dials, policy } = verdict
  return {
    tag: unit === 'lb' ? dials.tag_per_lb : dials.tag_per_kg,
    yields: Object.fromEntries(dials.yields.map((one) => [one.kind, one.kept])),
    minutes: dials.minutes,
    portion: dials.portion_slices || dials.portion_weight || dials.portion_cooked_weight,
    shops: [...dials.shops],
    policy: { ...policy },
  }
}

/** Only what differs from the record is sent; the rest stays exact. */
export function trialOf(now: Dials, was: Dials, verdict: Verdict, unit: 'lb' | 'kg'): Schemas['TrialIn'] {
  const yields = Object.entries(now.yields).filter(([kind, kept]) => kept !== was.yields[kind])
  const { portion_weight, portion_cooked_weight } = verdict.dials
  const way = portion_weight ? 'weight' : portion_cooked_weight ? 'cooked_weight' : 'slices'
  return {
    tag: now.tag === was.tag ? '' : now.tag,
    tag_unit: unit,
    yields: Object.fromEntries(yields),
    minutes: now.minutes === was.minutes ? '' : now.minutes,
    portion:
      now.portion === was.portion || !now.portion
        ? null
        : { slices: '', weight: '', cooked_weight: '', [way]: now.portion },
    shops: now.shops.map((paid, index) => (paid === was.shops[index] ? '' : paid)),
    policy: samePolicy(now.policy, was.policy) ? null : { ...now.policy },
  }
}

export function samePolicy(one: Policy, other: Policy): boolean {
  const textOf = ({ labour_rate, by_products, fuel, packaging, overhead }: Policy): string =>
    JSON.stringify([
      labour_rate ?? '',
      by_products ?? true,
      fuel ?? true,
      packaging ?? true,
      overhead ?? true,
    ])
  return textOf(one) === textOf(other)
}

/** Tries changes as they are made; the record is untouched. The latest answer counts. */
export function useTrial(code: () => string, verdict: ComputedRef<Verdict>) {
  const slug = useSlug()
  const { unit } = useUnits()
  const was = computed(() => dialsOf(verdict.value, unit.value))
  const dials = reactive<Dials>(dialsOf(verdict.value, unit.value))
  const trial = ref<Trial | null>(null)

  const body = computed(() => trialOf(dials, was.value, verdict.value, unit.value))
  const blank = computed(() => JSON.stringify(trialOf(was.value, was.value, verdict.value, unit.value)))
  const isTried = computed(() => JSON.stringify(body.value) !== blank.value)

  const { answer, problem } = useAsking(
    'what if',
    () => (isTried.value ? { code: code(), changes: body.value } : null),
    ({ code, changes }) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/trial', {
          params: { path: { kitchen_slug: slug.value, code } },
          body: changes,
        }),
      ),
    { wait: 40 },
  )
  const lost = computed(() => problem.value !== null)
  const preview = computed(
    () => answer.value && { readings: [], asks: [], shops: [], problems: answer.value.problems ?? [] },
  )
  /** The last that could be worked out stays while something typed cannot. */
  watch(answer, (now) => {
    if (now?.judged) trial.value = now
  })
  watch(isTried, (now) => {
    if (!now) trial.value = null
  })
  watch(was, (now) => Object.assign(dials, now))
  provideFormFacts({ preview, problem: ref(null) })

  /** What the latest answer says of what is being tried; null where nothing is, or no answer came yet. */
  const tried = computed(() => (isTried.value ? (trial.value?.judged ?? null) : null))
  const judged = computed(() => tried.value ?? verdict.value.judged)
  const strip = computed(() => (isTried.value && trial.value?.strip) || null)
  const reset = (): void => void Object.assign(dials, dialsOf(verdict.value, unit.value))
  return { dials, was, tried, judged, strip, isTried, lost, reset }
}
