import { useQuery } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { api, ProblemError, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useBatch'
import { useAsking } from '@/shared/asking/useAsking'
import { useUnits } from '@/shared/quantity/useUnits'
import { useDraft } from '@/shared/writing/useDraft'
import { exampleOffers, type Offer } from './offerDraft'

export type Case = Schemas['CaseIn']
export type Checked = Schemas['CaseOut']
export type CheckedOffer = Schemas['CaseOfferOut']

/** Offers and plan being typed, kept on the device; ranked by the server after each change. */
export function useCase() {
  const slug = useSlug()
  const { isMetric, like } = useUnits()
  const { draft } = useDraft<{ isExample: boolean; case: Case }>('case', () => ({
    isExample: true,
    case: {
      way: '',
      against: '',
      about: like('20 lb', '10 kg'),
      portions: '',
      on: null,
      offers: exampleOffers(isMetric.value ? 'per_kg' : 'per_lb'),
    },
  }))
  const choices = useQuery<Schemas['ChoicesOut'], ProblemError>({
    queryKey: computed(() => ['case', slug.value]),
    queryFn: () =>
      take(api.GET('/api/kitchens/{kitchen_slug}/case', { params: { path: { kitchen_slug: slug.value } } })),
  })
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

  /** The method saved here may be gone; then the first there is. */
  watch(
    choices.data,
    (now, before) => {
      if (!now) return
      // prices or methods changed meanwhile: what was asked may have another answer
      if (before) check()
      const ways = now.ways.map((way) => way.name)
      if (!ways.includes(draft.case.way)) draft.case.way = ways[0] ?? ''
    },
    { immediate: true },
  )

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
  return { draft, choices, checked, problem, check, put, drop, clearExamples, faultsOf }
}
