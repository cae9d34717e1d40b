import { foldName } from '../../fold.ts'
import { termsSaid, wordsSaid } from '../courseWords.ts'
import type { Recogniser } from './recogniser.ts'

/** The term as the calendar names it, or any season with a year. */
export const term: Recogniser = ({ field }, tokens, { common }, add) => {
  const known = typeof common.term === 'string' ? common.term : null
  const whole = known === null ? null : wordsSaid(tokens, foldName(known).text)
  if (whole && whole.share === 1)
    add(field, field, whole.exact ? 'plain' : 'typed', whole, known, 5)
  for (const said of termsSaid(tokens))
    add(field, field, 'plain', said, `${said.season} ${said.year}`, 3)
}
