import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import type { Course } from '@/shared/parts/courseWords'
import { renewShown } from '@/shared/api/renewShown'
import { usePieces } from '@/shared/api/useBench'
import { useSession } from '@/shared/api/useSession'
import { useWays } from '@/shared/api/useWays'

/** What is expected of a batch under way, anew after every entry (`seen`). */
export function useForecast(code: Ref<string>, seen: Ref<number | undefined>) {
  return useKitchenQuery(
    'forecast',
    '/batches/{code}/forecast',
    () => ({ path: { code: code.value }, key: [code.value, seen.value] }),
    { enabled: () => seen.value !== undefined },
  )
}

/** What the finished pound of one piece will cost: of its own kind where pieces become different things. */
export function useForecastOfPiece(code: Ref<string>, mark: Ref<string>) {
  const { seesMoney } = useSession()
  // anew whenever its pieces are
  const { dataUpdatedAt } = usePieces(code)
  const { data } = useForecast(
    code,
    computed(() => (seesMoney.value ? dataUpdatedAt.value || undefined : undefined)),
  )
  return computed(() => {
    const own = data.value?.groups.find((one) => one.marks.includes(mark.value))
    return own ? own.price : (data.value?.price ?? null)
  })
}

/** Saying in one touch what a batch is to become. */
export function useSayCourse(code: Ref<string>) {
  const queries = useQueryClient()
  const made = useKitchenWrite(`${code.value}:say course`, '/batches/{code}/entries', {
    path: () => ({ code: code.value }),
  })
  const say = (course: Course, seen: number): void => {
    const content = { act: 'course' as const, course, pieces: [] }
    void made.write({ content, seen, corrects: null, reason: '', happened_at: null }, () =>
      renewShown(queries),
    )
  }
  return { say, problem: made.problem, isSaving: made.isSaving }
}

/** The kitchen's ways by name, and choosing one for a batch. */
export function useChooseWay(code: Ref<string>) {
  const queries = useQueryClient()
  const ways = useWays()
  const made = useKitchenWrite(`${code.value}:way`, '/batches/{code}/way', {
    path: () => ({ code: code.value }),
  })
  const choose = (way: string): void =>
    void made.write({ way }, () => {
      void queries.invalidateQueries({ queryKey: ['forecast'] })
      void queries.invalidateQueries({ queryKey: ['batch'] })
      renewShown(queries)
    })
  return { ways, choose, problem: made.problem }
}
