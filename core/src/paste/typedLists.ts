import { listsOfItems } from './listOfItems.ts'
import type { Piece } from './piece.ts'

/** The mark that was typed or drawn before an item. */
const bullet = /^\s*[•·▪◦‣–-]\s+/u
export const ordinal = /^\s*\(?(?:\d{1,3}|[a-z]|[ivxlc]{1,5})[.)]\s/iu

/** Lines that each begin with a bullet, or with numbers, are a list, whoever typed them. */
export const typedLists = (pieces: readonly Piece[]): Piece[] =>
  listsOfItems(
    pieces.flatMap((piece): Piece[] => {
      if (piece.kind !== 'paragraph') return [piece]
      const lines = piece.inline.split('<br>')
      const marker = [bullet, ordinal].find((one) => lines.every((line) => one.test(line)))
      if (!marker || (marker === ordinal && lines.length < 2)) return [piece]
      return lines.map((line) => ({
        kind: 'item',
        ordered: marker === ordinal,
        depth: 1,
        inline: line.replace(marker, ''),
      }))
    }),
  )
