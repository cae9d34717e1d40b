import {
  openMendsOf,
  openMustsOf,
  strandLetters,
  worstOf,
  type Crossings,
  type Finding,
  type OpenMends,
  type OpenMust,
  type Outlook,
  type Strand,
} from '@wickerframe/core'
import { anyOf, rowsOf, type Database } from '@wickerframe/storage'
import { LRUCache } from 'lru-cache'
import { currentCheckOf } from './currentCheck.ts'

/**
 * What the pictures of the whole college are made of: a result without what passed, its evidence and its changes. It is shared:
 * nobody changes it.
 */
export interface CheckDigest extends FindingsGist {
  readonly courseId: number
  readonly crossings: Crossings
  readonly outlook: Outlook
}
interface FindingsGist {
  readonly openMusts: readonly OpenMust[]
  readonly openMends: readonly OpenMends[]

  /** Fingerprints of all its findings. */
  readonly found: readonly string[]
}

/** Another one whenever what is kept of findings has another form, here or in the core: those of before are not read then. */
export const gistForm = 1

/** What is kept of findings for pictures of the whole college. */
export const gistOf = (findings: readonly Finding[]): FindingsGist => ({
  openMusts: openMustsOf(findings),
  openMends: openMendsOf(findings),
  found: findings.map(({ fingerprint }) => fingerprint),
})

interface CurrentRow {
  id: number
  course_id: number
  cache_key: string
  as_of: string
  rewritten: string | null
}
interface DigestRow {
  id: number
  crossings: string
  gist: string | null

  /** Read only where there is no gist of today’s form. */
  findings: string
  outlook: string
}

/**
 * Digests by what their results answer, so that another database has no part in it. Reading those of 2,000 courses takes
 * seconds where all is open, and hardly any of them is another one when it is asked again. In characters of their JSON.
 */
const kept = new LRUCache<string, CheckDigest>({ maxSize: 100_000_000 })
const keyOf = (row: CurrentRow): string =>
  `${row.course_id} ${row.cache_key} ${row.as_of} ${row.rewritten ?? ''}`
const resultsAtOnce = 50

/** The digest of every course's current check on a date, by course. */
export const listChecks = async (
  database: Database,
  asOf: string,
): Promise<Map<number, CheckDigest>> => {
  const current = await currentRows(database, asOf)
  const digests = new Map<number, CheckDigest>()
  const unknown: CurrentRow[] = []
  for (const row of current) {
    const known = kept.get(keyOf(row))
    if (known) digests.set(row.course_id, known)
    else unknown.push(row)
  }
  // Some at a time, so that others are served between them.
  for (let from = 0; from < unknown.length; from += resultsAtOnce) {
    const rows = new Map(
      unknown.slice(from, from + resultsAtOnce).map((row) => [row.id, row] as const),
    )
    for (const found of await digestRows(database, [...rows.keys()])) {
      const row = rows.get(found.id)
      if (!row) continue
      const digest = checkOf(row.course_id, found)
      digests.set(row.course_id, digest)
      kept.set(keyOf(row), digest, { size: JSON.stringify(digest).length })
    }
  }
  return digests
}

const checkOf = (courseId: number, row: DigestRow): CheckDigest => ({
  ...(row.gist === null ? gistOf(JSON.parse(row.findings)) : JSON.parse(row.gist)),
  courseId,
  crossings: crossingsOfRow(row.crossings),
  outlook: JSON.parse(row.outlook),
})

const currentRows = (database: Database, asOf: string): Promise<CurrentRow[]> =>
  rowsOf(
    database,
    `SELECT check_results.id, check_results.course_id, cache_key, check_results.as_of, rewritten
     FROM courses
     JOIN check_results ON check_results.id = ${currentCheckOf('courses.id')}`,
    [asOf, asOf],
  )
const digestRows = (database: Database, results: readonly number[]): Promise<DigestRow[]> => {
  const ids = anyOf(results)
  return rowsOf(
    database,
    `SELECT id, crossings, outlook, IF(gist_form <=> ?, gist, NULL) AS gist,
       IF(gist_form <=> ?, '', findings) AS findings
     FROM check_results
     WHERE id IN ${ids.sql}`,
    [gistForm, gistForm, ...ids.values],
  )
}

/** What was kept before there was a letter for each part is one crossing for each stretch: the worst of it. */
const crossingsOfRow = (row: string): Crossings => {
  const crossings: Crossings | { column: string; strands: Strand[] }[] = JSON.parse(row)
  return Array.isArray(crossings)
    ? Object.fromEntries(
        crossings.flatMap(({ column, strands }) =>
          strands.length === 0
            ? []
            : [[`${column}/all`, worstOf(strands.map((strand) => strandLetters[strand]))]],
        ),
      )
    : crossings
}
