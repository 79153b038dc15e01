import { type Ref, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/** A filter that is part of the address, so that Back and a reload keep it; `usual` is left out of it. */
export function useInAddress<T extends string>(name: string, usual: T): Ref<T> {
  const route = useRoute() as ReturnType<typeof useRoute> | undefined
  const router = useRouter()
  const value = ref((route?.query[name] ?? usual) as T) as Ref<T>
  watch(value, (now) => {
    const query = { ...route?.query, [name]: now === usual ? undefined : now }
    void (router as typeof router | undefined)?.replace({ query })
  })
  return value
}
