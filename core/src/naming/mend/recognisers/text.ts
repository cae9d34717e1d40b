import { definitionOf } from '../../fields.ts'
import { foldName } from '../../fold.ts'
import type { Add } from '../candidates.ts'
import { wordsSaid } from '../courseWords.ts'
import { classSectionLeftOvers } from '../leftOvers.ts'
import { withBrackets, type Token } from '../tokens.ts'
import type { Recogniser } from './recogniser.ts'

/** Words that are known of the course, such as its title, its instructor, its class sections. */
export const text: Recogniser = ({ field }, tokens, { classSections, common }, add) => {
  const known = common[field]
  if (typeof known !== 'string' || known === '' || definitionOf(field).own) return
  if (field === 'classSection') {
    addClassSections(tokens, classSections, known, add)
    return
  }
  const said = wordsSaid(tokens, foldName(known).text, field === 'instructor')
  // Half a person's name may be another person's.
  if (!said || (field === 'instructor' && said.share < 1)) return
  const how = said.exact ? 'plain' : said.share === 1 ? 'typed' : 'part-of'
  add(field, field, how, said, known, 4 * said.share)
}

const addClassSections = (
  tokens: readonly Token[],
  classSections: readonly string[],
  known: string,
  add: Add,
): void => {
  const all = classSectionLeftOvers(
    tokens,
    classSections,
    tokens.flatMap((token, at) =>
      token.kind === 'space' || token.kind === 'mark' ? [at + 1] : [],
    ),
  )
  for (const said of all) {
    const count = tokens
      .slice(said.from, said.to)
      .filter((token) =>
        classSections.some((section) => section.toLowerCase() === token.text),
      ).length
    add(
      'classSection',
      'classSection',
      count === classSections.length ? 'plain' : 'part-of',
      withBrackets(tokens, said),
      known,
      1.5 + count,
    )
  }
}
