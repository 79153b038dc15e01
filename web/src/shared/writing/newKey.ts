import { v4 } from 'uuid'

/** A new idempotency key: also on a page that came over plain HTTP, where the browser has none to give. */
export const newKey = (): string => v4()
