import { ref } from 'vue'

/** Who is signed in, in which kitchen: what is typed or waits on this device belongs to just one of them. */
export type Owner = { kitchen: string; username: string }

const owner = ref<Owner | null>(null)

export const setOwner = (now: Owner | null): void => {
  owner.value = now
}
/** The owner as one word for names in the device's store; empty while nobody is signed in. */
export const ownerKey = (): string =>
  owner.value ? `${owner.value.kitchen}/${encodeURIComponent(owner.value.username)}` : ''
/** The cook as the server is given it with each write. */
export const cookHeader = (): Record<string, string> =>
  owner.value ? { 'Dolmetsch-Cook': encodeURIComponent(owner.value.username) } : {}
