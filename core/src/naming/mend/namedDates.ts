import type { DaySpan } from '../fields.ts'
import { foldName } from '../fold.ts'
import { longestName } from '../format.ts'
import { classSectionLeftOvers } from './leftOvers.ts'
import { codesSaid } from './courseWords.ts'
import { datesSaid } from './saidDates.ts'
import { tokensOf } from './tokens.ts'

/** A range of days that a text speaks of, with the exact words. */
export interface NamedRange extends DaySpan {
  text: string
}

/**
 * The ranges of days a text speaks of, however they are written (9/14-9/20, Sept. 14th–20th, 14 al 20 de septiembre), in
 * order. Where a date may be read in two ways, the one that lies nearer to a wanted range is taken.
 * @param near a date `YYYY-MM-DD` for dates without a year
 */
export const rangesNamed = (text: string, near: string, wanted?: DaySpan): NamedRange[] => {
  if (text.length > longestName || !/\d/.test(text)) return []
  const folded = foldName(text)
  const tokens = tokensOf(folded.text)
  let end = 0
  return datesSaid(tokens, near).flatMap((said): NamedRange[] => {
    const ranges = said.readings.flatMap(({ first, last }) =>
      last === null ? [] : [{ first, last }],
    )
    const range =
      ranges.find(
        (range) =>
          wanted !== undefined && range.first === wanted.first && range.last === wanted.last,
      ) ?? ranges[0]
    if (!range || said.from < end) return []
    end = said.to
    return [
      {
        ...range,
        text: text.slice(
          folded.origin[tokens[said.from]?.from ?? 0],
          folded.origin[tokens[said.to - 1]?.to ?? 0],
        ),
      },
    ]
  })
}

/** The words by which a course's name still speaks of class sections (`-01`, `sections 01 and 02`), quoted from it. */
export const classSectionsNamed = (
  name: string,
  code: string,
  classSections: readonly string[],
): string[] => {
  if (name.length > longestName) return []
  const folded = foldName(name)
  const tokens = tokensOf(folded.text)
  const ends = codesSaid(tokens, name, folded.origin, code).flatMap((said) =>
    said.own ? [said.to] : [],
  )
  return classSectionLeftOvers(tokens, classSections, ends).map((said) =>
    name
      .slice(
        folded.origin[tokens[said.from]?.from ?? 0],
        folded.origin[tokens[said.to - 1]?.to ?? 0],
      )
      .trim(),
  )
}
