import { conceptsOf } from '../../words/labels.ts'
import type { FieldName } from '../../fields.ts'
import type { Add, How } from '../candidates.ts'
import { labelLikeness } from '../labelledNumbers.ts'
import { isMark, skipSpace, withBrackets, type Token } from '../tokens.ts'
import type { Recogniser } from './recogniser.ts'

export const numberSpan: Recogniser = ({ before, field }, tokens, _around, add) =>
  addNumberSpan(field, field, 'plain', before, tokens, add)

/** `Weeks 1–4`, `wks 5 to 8`, `W1-4`. */
export const addNumberSpan = (
  slot: string | null,
  field: FieldName,
  how: How,
  before: readonly string[],
  tokens: readonly Token[],
  add: Add,
): void => {
  tokens.forEach((token, at) => {
    if (
      token.kind !== 'word' ||
      !before.some(
        (label) =>
          labelLikeness(token.text, label) !== null ||
          [...conceptsOf(token.text)].some((concept) => label.startsWith(concept)),
      )
    )
      return
    const first = isMark(tokens[at + 1], '.')
      ? skipSpace(tokens, at + 2)
      : skipSpace(tokens, at + 1)
    if (tokens[first]?.kind !== 'number') return
    const join = skipSpace(tokens, first + 1)
    const joins =
      isMark(tokens[join], '-') ||
      ['to', 'through', 'thru', 'a', 'al', 'au', 'and'].includes(tokens[join]?.text ?? '')
    const last = joins ? skipSpace(tokens, join + 1) : -1
    const to = tokens[last]?.kind === 'number' ? last : first
    add(
      slot,
      field,
      how,
      withBrackets(tokens, { from: at, to: to + 1 }),
      { from: Number(tokens[first].text), to: Number(tokens[to]?.text) },
      how === 'not-asked' ? 0 : to === first ? 1 : 5,
    )
  })
}
