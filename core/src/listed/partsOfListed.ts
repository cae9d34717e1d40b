import { endOfDay, parseOffset } from '../calendar/index.ts'
import { escapedFormat, parseFormat } from '../naming/index.ts'
import {
  audiences,
  freshKey,
  isModule,
  newPart,
  parseMay,
  parseRepeat,
  strengths,
  type ClippedParts,
  type Part,
} from '../template/index.ts'
import { treesOf, type ListedTree } from './folded.ts'
import type { ListedRow, SaidField } from './listedRow.ts'

/** What of a row cannot be read, by its field, with what could be written. */
export type RowProblems = Partial<Record<SaidField | 'name', string>>

const oneOf = <Word extends string>(text: string, words: readonly Word[]): Word | undefined => {
  const said = text.trim().toLowerCase()
  const yes = /^(?:yes|required|x|✓)$/u.test(said)
  return yes ? words[0] : words.find((word) => word === said)
}
const mostPoints = 10_000
const pointsOf = (text: string): number | undefined => {
  const points = Number(text.replace(',', '.'))
  return points >= 0 && points <= mostPoints ? points : undefined
}

/** A part as a row says it, without what cannot be read, which is told. */
const readRow = (row: ListedRow, key: string): { part: Part; problems: RowProblems } => {
  const problems: RowProblems = {}
  const format = parseFormat(row.name)
  const part = newPart(row.kind, key, format.ok ? row.name : escapedFormat(row.name))
  const read = <T>(field: SaidField, value: T | undefined, wanted: string): T | undefined => {
    if (row[field] !== '' && value === undefined) problems[field] = wanted
    return row[field] === '' ? undefined : value
  }
  const words = <T>(
    field: SaidField,
    parse: (text: string) => { ok: true; value: T } | { ok: false; problems: { message: string } },
  ): T | undefined => {
    if (row[field] === '') return undefined
    const result = parse(row[field])
    if (result.ok) return result.value
    problems[field] = result.problems.message
    return undefined
  }
  if (!format.ok) problems.name = format.problems[0]?.message ?? 'a name'
  part.strength =
    read('strength', oneOf(row.strength, strengths), 'must, should or may') ?? part.strength
  part.audience =
    read('audience', oneOf(row.audience, audiences), 'students, staff or backstage') ??
    part.audience
  const repeat = words('repeats', parseRepeat)
  if (repeat) part.repeat = repeat
  part.may = words('may', parseMay) ?? part.may
  if (!isModule(part)) {
    const due = words('due', (text) => parseOffset(text, endOfDay))
    const points = read('points', pointsOf(row.points), 'a number from 0 to 10,000')
    part.settings = { ...(due ? { due } : {}), ...(points === undefined ? {} : { points }) }
    if (row.url !== '') part.url = row.url
  }
  return { part, problems }
}

/** What of a row cannot be read; it is taken without that. */
export const problemsOfRow = (row: ListedRow): RowProblems => readRow(row, 'row').problems

/** Rows as parts, each under a key of its own made from its name. @throws never: what cannot be read of a row is left out of its part */
export const partsOfListed = (rows: readonly ListedRow[]): ClippedParts => {
  const taken = new Set<string>()
  const keyed = (name: string): string => {
    const key = freshKey(name, taken)
    taken.add(key)
    return key
  }
  const made = ({ row, inside }: ListedTree): Part => {
    // What others stand in is a module.
    const kind = inside.length > 0 ? 'module' : row.kind
    const { part } = readRow({ ...row, kind }, keyed(row.name))
    return isModule(part) ? { ...part, items: inside.map(made) } : part
  }
  return {
    schema: 'wickerframe.parts/1',
    parts: treesOf(rows).map(made),
    houseTexts: [],
    assets: [],
    files: [],
    rubrics: [],
    keptBlocks: [],
  }
}
