import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { watch } from 'vue'
import { api, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'
import { useUnits } from '@/shared/quantity/useUnits'
import { useDraft } from '@/shared/writing/useDraft'
import { exampleOffers, type Offer } from './offerDraft'

export type Case = Schemas['CaseIn']
/** The meal plan offers are asked for: its name, and the last day to buy by. */
export type ForPlan = { name: string; by: string }
export type Checked = Schemas['CaseOut']
export type CheckedOffer = Schemas['CaseOfferOut']

/** Offers and plan being typed, kept on the device; ranked by the server after each change. */
export function useCase() {
  const slug = useSlug()
  const { isMetric, like } = useUnits()
  const { draft } = useDraft<{ isExample: boolean; forPlan?: ForPlan | null; case: Case }>('case', () => ({
    isExample: true,
    forPlan: null,
    case: {
      way: '',
      course: 'cooked',
      against: '',
      about: like('20 lb', '10 kg'),
      portions: '',
      sliced: '',
      sure: '90',
      on: null,
      offers: exampleOffers(isMetric.value ? 'per_kg' : 'per_lb'),
    },
  }))
  const choices = useKitchenQuery('case', '/case')
  const {
    last: checked,
    problem,
    again: check,
  } = useAsking(
    'case',
    () => (choices.data.value ? draft.case : null),
    (asked) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/case', {
          params: { path: { kitchen_slug: slug.value } },
          body: asked,
        }),
      ),
    { wait: 150 },
  )

  /** Before anything was said, and where a method is gone: the first there is, and what was made last. */
  function settle(now: Schemas['ChoicesOut'], isFirst: boolean): void {
    const ways = now.ways.map((way) => way.name)
    const { case: asked, isExample, forPlan } = draft
    const isBlank = isFirst && isExample && !forPlan && !asked.way
    const isGone = asked.way && !ways.includes(asked.way)
    if (isBlank || isGone) asked.way = ways[0] ?? ''
    if (isBlank && now.courses[0]) asked.course = now.courses[0].course
  }
  watch(
    choices.data,
    (now, before) => {
      if (!now) return
      // prices or methods changed meanwhile: what was asked may have another answer
      if (before) check()
      settle(now, !before)
    },
    { immediate: true },
  )

  /** Ask for what a meal plan lacks: so much sliced, by its method; the day to buy by is the plan's own. */
  const askFor = (plan: ForPlan, asked: Pick<Case, 'way' | 'sliced' | 'sure'>): void => {
    draft.forPlan = plan
    Object.assign(draft.case, { ...asked, portions: '', on: null })
  }
  const leavePlan = (): void => {
    draft.forPlan = null
    Object.assign(draft.case, { sliced: '', sure: '90' })
  }
  const clearExamples = (): void => {
    draft.isExample = false
    draft.case.offers = []
  }
  const put = (offer: Offer): void => {
    // the first tag of one's own takes the place of the examples
    if (draft.isExample) clearExamples()
    const at = draft.case.offers.findIndex((one) => one.id === offer.id)
    if (at < 0) draft.case.offers.push({ ...offer })
    else draft.case.offers[at] = { ...offer }
  }
  const drop = (id: string): void => {
    draft.case.offers = draft.case.offers.filter((one) => one.id !== id)
  }
  /** What is wrong with an offer, at which of its fields; paths are those of the body sent. */
  const faultsOf = (id: string): string[] => {
    const at = draft.case.offers.findIndex((one) => one.id === id)
    return (checked.value?.problems ?? [])
      .filter((fault) => fault.path.startsWith(`offers[${at}].`))
      .map((fault) => fault.message)
  }
  return { draft, choices, checked, problem, check, put, drop, askFor, leavePlan, clearExamples, faultsOf }
}
