import { nextTick, type Ref, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/** What changed in one go goes into the address together: one change alone would put the others back. */
let changed: Record<string, string | undefined> = {}

/** A filter that is part of the address, so that Back and a reload keep it; `usual` is left out of it. */
export function useInAddress<T extends string>(name: string, usual: T): Ref<T> {
  const route = useRoute() as ReturnType<typeof useRoute> | undefined
  const router = useRouter() as ReturnType<typeof useRouter> | undefined
  const value = ref((route?.query[name] ?? usual) as T) as Ref<T>
  watch(value, (now) => {
    const isFirst = !Object.keys(changed).length
    changed[name] = now === usual ? undefined : now
    if (!isFirst) return
    void nextTick(() => {
      const query = { ...route?.query, ...changed }
      changed = {}
      void router?.replace({ query })
    })
  })
  return value
}
