import { withOwn, withoutOwn, type Bodies } from '@wickerframe/core'
import {
  anyOf,
  change,
  databaseErrorCode,
  firstRow,
  inTransaction,
  rowsOf,
  type Database,
} from '@wickerframe/storage'
import type { Pool } from 'mysql2/promise'
import { sha256 } from '../digest.ts'
import { findBodies, savePageBodies } from './pageBodies.ts'

/** A body as something of a course names it: under which id, of what it is kept under, and what is the course's own in it. */
export interface NamedBody {
  id: string
  hash: string
  own: readonly string[]
}

/** Bodies that a course is about to name, and the HTML behind their hashes. */
export interface ReadyBodies {
  named: NamedBody[]
  html: ReadonlyMap<string, string>
}

/** HTML by its hash, for the planning of one course: what it asked for is held as long as it is planned. */
export interface CourseBodies extends Bodies {
  /** Fetches those that this course names and that are not at hand yet. One that is missing stays missing. */
  load: (database: Database, courseId: number, ids: readonly string[]) => Promise<void>
  /**
   * These bodies, ready to be kept and named: of each the part that all courses share, and the course's own.
   * @param prefix how addresses of the course begin; empty: there is none
   * What is not at hand is left out: the course names it already, or `unnamedBodies` tells.
   */
  ready: (ids: Iterable<string>, prefix: string) => ReadyBodies
}

export const courseBodies = (): CourseBodies => {
  const asked = new Map<string, string>()
  const ids = new Map<string, string>()
  const loaded = new Map<string, string>()
  return {
    idOf: (html) => {
      let id = ids.get(html)
      if (id === undefined) {
        ids.set(html, (id = sha256(html)))
        asked.set(id, html)
      }
      return id
    },
    htmlOf: (id) => asked.get(id) ?? loaded.get(id),
    load: async (database, courseId, wanted) => {
      const lacking = wanted.filter((id) => !asked.has(id) && !loaded.has(id))
      for (const [id, html] of await findNamedBodies(database, courseId, lacking))
        loaded.set(id, html)
    },
    ready: (wanted, prefix) => {
      const named: NamedBody[] = []
      const html = new Map<string, string>()
      for (const id of new Set(wanted)) {
        const whole = asked.get(id)
        // What was loaded is named by the course already.
        if (whole === undefined) continue
        const shared = withoutOwn(whole, prefix)
        const hash = shared.own.length === 0 ? id : sha256(shared.html)
        html.set(hash, shared.html)
        named.push({ id, hash, own: shared.own })
      }
      return { named, html }
    },
  }
}

const mostAsked = 256

/** Bodies that a course names, by their ids; one that is not kept, or is not what its id says, is left out. */
const findNamedBodies = async (
  database: Database,
  courseId: number,
  ids: readonly string[],
): Promise<Map<string, string>> => {
  const rows: BodyRow[] = []
  const wanted = [...new Set(ids)]
  for (let i = 0; i < wanted.length; i += mostAsked)
    rows.push(...(await bodyRows(database, courseId, wanted.slice(i, i + mostAsked))))
  const named = new Map(rows.map((row) => [row.body, row]))
  // What was stored before courses named their bodies is looked for by its own hash.
  const hashes = wanted.map((id) => named.get(id)?.hash ?? id)
  const shared = await findBodies(database, hashes)
  return new Map(
    wanted.flatMap((id): [string, string][] => {
      const row = named.get(id)
      const html = shared.get(row?.hash ?? id)
      if (html === undefined) return []
      const own = row?.own ? (JSON.parse(row.own) as string[]) : []
      const whole = withOwn({ html, own })
      return own.length > 0 && sha256(whole) !== id ? [] : [[id, whole]]
    }),
  )
}

interface BodyRow {
  body: string
  hash: string
  own: string | null
}
const bodyRows = (database: Database, courseId: number, ids: readonly string[]) => {
  const some = anyOf(ids)
  return rowsOf<BodyRow>(
    database,
    `SELECT body, hash, own
     FROM course_bodies
     WHERE course_id = ? AND body IN ${some.sql}`,
    [courseId, ...some.values],
  )
}

const insertedTogether = 200

/**
 * Names bodies for a course, in the transaction that stores what speaks of them: from then on the database keeps them. Their
 * HTML was kept before. Takes a share of the course's row, so that whoever forgets names waits.
 */
export const nameBodies = async (
  database: Database,
  courseId: number,
  named: readonly NamedBody[],
): Promise<void> => {
  if (named.length === 0) return
  await shareCourse(database, courseId)
  const sorted = [...named].sort((a, b) => (a.hash < b.hash ? -1 : a.hash > b.hash ? 1 : 0))
  for (let i = 0; i < sorted.length; i += insertedTogether)
    await insertNames(database, courseId, sorted.slice(i, i + insertedTogether))
}

/**
 * Keeps bodies, then runs the transaction that names them. Where the collector took one of them out in between, the database
 * refuses the name, and both are done again.
 */
export const inTransactionNaming = async <T>(
  pool: Pool,
  html: ReadonlyMap<string, string>,
  work: (database: Database) => Promise<T>,
): Promise<T> => {
  await savePageBodies(pool, html)
  try {
    return await inTransaction(pool, work)
  } catch (cause) {
    if (databaseErrorCode(cause) !== 'ER_NO_REFERENCED_ROW_2') throw cause
    await savePageBodies(pool, html, true)
    return inTransaction(pool, work)
  }
}

const shareCourse = (database: Database, courseId: number) =>
  firstRow(
    database,
    `SELECT id
     FROM courses
     WHERE id = ? LOCK IN SHARE MODE`,
    [courseId],
  )
const insertNames = (database: Database, courseId: number, named: readonly NamedBody[]) =>
  change(
    database,
    `INSERT INTO course_bodies (course_id, body, hash, own)
     VALUES ${named.map(() => '(?, ?, ?, ?)').join(', ')}
     ON DUPLICATE KEY UPDATE body = VALUES(body)`,
    named.flatMap(({ id, hash, own }) => [
      courseId,
      id,
      hash,
      own.length === 0 ? null : JSON.stringify(own),
    ]),
  )

/** Of these ids, those that a course does not name. */
export const unnamedBodies = async (
  database: Database,
  courseId: number,
  ids: readonly string[],
): Promise<string[]> => {
  const named = new Set<string>()
  for (let i = 0; i < ids.length; i += mostAsked)
    for (const row of await bodyRows(database, courseId, ids.slice(i, i + mostAsked)))
      named.add(row.body)
  return ids.filter((id) => !named.has(id))
}
