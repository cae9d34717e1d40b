import { compactRangesSaid } from '../compactRanges.ts'
import { datesSaid } from '../saidDates.ts'
import { withBrackets, type Stretch, type Token } from '../tokens.ts'
import type { Recogniser } from './recogniser.ts'

/** A date, or a first and last day, with the words that lead up to a due date. */
export const dates: Recogniser = ({ field, step }, tokens, { near }, add) => {
  for (const said of datesSaid(tokens, near)) {
    const due = field === 'due' ? withDueWord(tokens, said) : said
    const isWhole = step.type === 'date' || said.readings.some(({ last }) => last !== null)
    add(
      field,
      field,
      isWhole ? 'plain' : 'start-only',
      due,
      null,
      due.from === said.from && step.type === 'date' ? 2 : 3,
      said.readings,
    )
  }
  if (step.type === 'range')
    for (const said of compactRangesSaid(tokens, near))
      add(field, field, 'plain', said, null, 0.3, said.readings)
}

const dueIntro = new Set(['due', 'by', 'on', 'remise', 'entrega', 'rendre', 'a', 'le', 'el', 'for'])
const withDueWord = (tokens: readonly Token[], said: Stretch): Stretch => {
  let from = said.from
  for (;;) {
    const before = tokens[from - 1]?.kind === 'space' ? from - 2 : from - 1
    if (tokens[before]?.kind !== 'word' || !dueIntro.has(tokens[before]?.text ?? '')) break
    from = before
  }
  return from === said.from ? said : withBrackets(tokens, { from, to: said.to })
}
