import type { Schemas } from '@/shared/api/client'

type Piece = Schemas['LyingOut']

/** What a piece is called among others: code and mark; of a whole lot the code alone. */
export const labelOf = (piece: { code: string; mark: string }): string =>
  piece.mark === 'lot' ? piece.code : `${piece.code} ${piece.mark}`

/** Where in a piece a probe goes, as offered. */
export const probePlaces = ['thick end', 'thin end', 'middle', 'by the bone']

/** Every piece under way, wherever it lies, in the order of their labels. */
export const piecesOf = (map: Schemas['MapOut'] | undefined): Piece[] =>
  [...(map?.nowhere ?? []), ...(map?.stores ?? []).flatMap((store) => store.lying)].sort((a, b) =>
    labelOf(a).localeCompare(labelOf(b)),
  )
