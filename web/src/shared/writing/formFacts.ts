import { computed, inject, type InjectionKey, provide, type Ref } from 'vue'
import type { Preview, Problem } from '@/shared/api/client'

type Facts = { preview: Ref<Preview | null>; problem: Ref<Problem | null> }
const key: InjectionKey<Facts> = Symbol('form facts')

/** Give the fields below what the server read and what it refused. */
export function provideFormFacts(facts: Facts): void {
  provide(key, facts)
}

/** What is known of the field at `path`: how it was read, and what is wrong with it. */
export function useFieldFacts(path: () => string) {
  const facts = inject(key, null)
  const place = computed(path)
  const reading = computed(() => facts?.preview.value?.readings?.find((one) => one.path === place.value))
  const fault = computed(() => {
    const refused = facts?.problem.value?.fields?.find((one) => one.path === place.value)
    const seen = facts?.preview.value?.problems?.find((one) => one.path === place.value)
    return (refused ?? seen)?.message ?? null
  })
  return { reading, fault }
}
