import { type Directive, type WatchStopHandle, watchEffect } from 'vue'
import type { Role } from './roles'
import { useSession } from '@/shared/api/useSession'

const watched = new WeakMap<HTMLElement, WatchStopHandle>()

/** `v-may:cook`: is shown only to those whose role is that or more; the server refuses the rest in any case. */
export const vMay: Directive<HTMLElement, undefined, string, Role> = {
  mounted(element, { arg = 'helper' }) {
    const { may } = useSession()
    watched.set(
      element,
      watchEffect(() => element.toggleAttribute('data-not-theirs', !may(arg))),
    )
  },
  unmounted(element) {
    watched.get(element)?.()
  },
}
