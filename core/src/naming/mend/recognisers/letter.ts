import { numberAt } from '../labelledNumbers.ts'
import { isMark } from '../tokens.ts'
import type { Recogniser } from './recogniser.ts'

/** A letter beside a number: `3b`, `3-B`. */
export const letter: Recogniser = ({ field }, tokens, _around, add) =>
  tokens.forEach((token, at) => {
    if (token.kind !== 'word' || token.text.length !== 1) return
    let before = at - 1
    while (tokens[before]?.kind === 'space' || isMark(tokens[before], '-')) before -= 1
    if (tokens[before]?.kind === 'number' || numberAt(tokens, before))
      add(field, field, 'plain', { from: at, to: at + 1 }, token.text.toUpperCase(), 2)
  })
