import type { Schemas } from '@/shared/api/client'

export type Role = Schemas['RoleIn']['role']

/** What each role may do, in a few words. */
export const roleWords: Record<Role, string> = {
  owner: 'does all of it, says who is in the kitchen, and sees who did what.',
  cook: 'does all the work: buys, cures, smokes, packs, plans.',
  helper: 'weighs and ticks off what is to do.',
  reader: 'looks at everything and records nothing.',
}
export const roles: { value: Role; word: string }[] = [
  { value: 'owner', word: 'Owner' },
  { value: 'cook', word: 'Cook' },
  { value: 'helper', word: 'Helper' },
  { value: 'reader', word: 'Reader' },
]

/** Whose work it is where this is the least role. */
export const whoMay: Record<Role, string> = {
  owner: 'owners',
  cook: 'cooks and owners',
  helper: 'helpers, cooks and owners',
  reader: 'everyone',
}
