import { inject, type InjectionKey, provide, type Ref } from 'vue'
import type { Batch, Verdict } from '@/shared/api/client'

/** What figures below can be asked of: a verdict's derivations, and the log their entries stand in. */
type Known = { verdict: Ref<Verdict | undefined>; batch: Ref<Batch | undefined> }
const key: InjectionKey<Known> = Symbol('why')

export const provideWhy = (known: Known): void => provide(key, known)
export const useWhy = (): Known | null => inject(key, null)
