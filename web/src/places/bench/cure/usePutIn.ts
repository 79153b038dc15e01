import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, type Ref } from 'vue'
import { api, type Cures, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useWrite } from '@/shared/writing/useWrite'
import type { DeskFacts } from './useDesk'
import type { Recipe } from './recipes'

type PutIn = Schemas['PutInIn']

/** What a batch's cures have come to is shown at once; all that tells of them is asked anew. */
export function useShowCures(code: Ref<string>) {
  const kitchen_slug = useSlug()
  const queries = useQueryClient()
  return (cures: Cures): void => {
    queries.setQueryData(['cures', kitchen_slug.value, code.value], cures)
    for (const name of ['plan', 'pieces', 'diary', 'cure-desk'])
      void queries.invalidateQueries({ queryKey: [name] })
  }
}

/** Pieces go into the cure; what is asked about first waits for a yes. */
export function usePutIn(code: Ref<string>) {
  const kitchen_slug = useSlug()
  const show = useShowCures(code)
  const path = computed(() => ({ kitchen_slug: kitchen_slug.value, code: code.value }))
  const { state, problem, write, retry, reset } = useWrite<PutIn, Cures>(
    `${code.value}:put-in`,
    (body, key) =>
      take(
        api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/cures', {
          params: { path: path.value, header: { 'Idempotency-Key': key } },
          body,
        }),
      ),
  )
  const sure = ref(false)
  const isAsked = computed(() => problem.value?.code === 'ask')
  function putIn(body: Omit<PutIn, 'sure'>, done: () => void): void {
    void write({ ...body, sure: sure.value }, (cures) => {
      sure.value = false
      show(cures)
      done()
    })
  }
  return { state, problem, retry, reset, sure, isAsked, putIn }
}

/** Keeping a recipe under a name: the next version of it. */
export function useKeepRecipe(put: (facts: DeskFacts) => void) {
  const { state, problem, write, reset } = useKitchenWrite('recipe', '/recipes')
  function keep(recipe: Recipe, putAway = false): void {
    void write({ recipe, put_away: putAway }, put)
  }
  return { state, problem, keep, reset }
}
