import type { PieceFacts } from '@/shared/api/client'

/** What a piece may be cured as: each has a limit of its own. */
export const productWords: Record<PieceFacts['product'], string> = {
  bacon: 'bacon of belly',
  whole_muscle: 'whole muscle',
  comminuted: 'sausage, comminuted',
}
