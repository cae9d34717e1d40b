import { readTable } from './tableFile.ts'
import { failure, Rubric, success, type Result } from '@wickerframe/core'

/** A mistake in a rubric file: which line, what stands there, what is wanted. */
export interface RubricFileProblem {
  line: number
  found: string
  reason: string
}

const mostCriteria = 30
const mostLevels = 10
/** Points stand in so many last characters of a head: to look through all of a long one takes time with its square. */
const pointsWithin = 60
/** The points at the end of a head: `Excellent (10)`, `Good: 7 points`, `5`. */
const pointsAtEnd = /(?:^|[\s(:])(\d+(?:[.,]\d+)?)\s*(?:p|pts?|points?)?\.?\)?\s*$/i

/**
 * Reads a rubric from a table file (CSV, RFC 4180; comma, semicolon or tab): the first row heads the levels, each head
 * ending in the level's points; then a row for each criterion, its words first and each level's description after them.
 * @param bytes the file, in any encoding that tables are read in
 */
export const readRubric = (bytes: Uint8Array): Result<Rubric['criteria'], RubricFileProblem[]> => {
  const problem = (line: number, found: string, reason: string) =>
    failure<RubricFileProblem[]>([{ line, found: found.slice(0, 80), reason }])
  const table = readTable(bytes, mostCriteria)
  if (!table.ok) return problem(table.problems.line, table.problems.found, table.problems.reason)
  const [head, ...body] = table.value.rows.map((row) => row.cells)
  if (!head || head.length < 2)
    return problem(
      1,
      (head ?? []).join(', '),
      'a first row with a column for the criterion and one for each level',
    )
  if (head.length - 1 > mostLevels)
    return problem(1, `${head.length - 1} levels`, `at most ${mostLevels} levels`)
  if (body.length === 0) return problem(2, 'nothing', 'a row for each criterion')
  const points = head.slice(1).map((title) => pointsAtEnd.exec(title.slice(-pointsWithin))?.[1])
  const without = points.findIndex((point) => point === undefined)
  if (without >= 0)
    return problem(
      1,
      head[without + 1] ?? '',
      'a head that ends in the level’s points, such as “Excellent (10)”',
    )
  const criteria: Rubric['criteria'] = []
  for (const [i, row] of body.entries()) {
    const [name = '', ...levels] = row
    if (name === '') return problem(i + 2, row.join(', '), 'the criterion in the first column')
    if (levels.length > points.length)
      return problem(
        i + 2,
        `${levels.length} levels`,
        `${points.length} levels, as the first row has`,
      )
    criteria.push({
      text: name.slice(0, 500),
      levels: points.map((point, at) => ({
        text: (levels[at] ?? '').slice(0, 1000),
        points: Number((point ?? '0').replace(',', '.')),
      })),
    })
  }
  const read = Rubric.shape.criteria.safeParse(criteria)
  if (read.success) return success(read.data)
  const [issue] = read.error.issues
  const [row = 0, , level = 0] = issue?.path.map(Number) ?? []
  // Points stand in the heads; all else in the criterion's own row.
  return issue?.path.at(-1) === 'points'
    ? problem(1, head[level + 1] ?? '', 'a level’s points from 0 to 10,000')
    : problem(row + 2, (body[row] ?? []).join(', '), 'one line of text in the first column')
}
