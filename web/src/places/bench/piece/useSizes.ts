import type { PieceFacts } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** What is known of a piece's size, in words. */
export function useSizes() {
  const { lengthText } = useUnits()
  function sizeText(piece: PieceFacts): string {
    const sizes = [
      [piece.length, 'long'],
      [piece.width, 'wide'],
      [piece.thickness, 'thick'],
    ] as const
    const words = sizes.map(([length, word]) => (length ? `${lengthText(length)} ${word}` : ''))
    return words.filter(Boolean).join(', ') || 'not measured'
  }
  return { sizeText }
}
