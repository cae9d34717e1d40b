import {
  Course,
  everyCourseItem,
  isShell,
  mapCourse,
  ownPrefix,
  readDocument,
  type RecordedAs,
  type SharedPage,
  withoutOwn,
  withOwn,
  withRecordedIdentity,
} from '@wickerframe/core'
import { anyOf, change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { digestOfMade, sha256 } from '../digest.ts'
import { listIdentities } from '../rollouts/bases.ts'
import { storeCohortNames } from '../courses/cohort.ts'
import { instantOfRow, rowOfInstant } from '../moment.ts'
import { nameBodies, type ReadyBodies } from './courseBodies.ts'
import { findBodies } from './pageBodies.ts'

/**
 * Pages are kept once for all courses, under the hash of what they share with others; a snapshot holds `sha256:HASH` in
 * their place, and after it what is the course's own in them.
 */
const reference = 'sha256:'

const referenceTo = (hash: string, own: readonly string[]): string =>
  `${reference}${hash}${own.length > 0 ? ` ${JSON.stringify(own)}` : ''}`
const hashOf = (text: string): string => text.slice(reference.length, reference.length + 64)
const ownOf = (text: string): string[] =>
  text.length > reference.length + 64
    ? (JSON.parse(text.slice(reference.length + 65)) as string[])
    : []

const withHtml = (course: Course, write: (html: string) => string): Course =>
  mapCourse(course, (item) => (item.html === null ? item : { ...item, html: write(item.html) }))

/** A course as read, ready to be stored, with the pages it names. */
export interface PreparedSnapshot {
  course: Course
  document: string
  /** Of its content, which its age and revision do not change. */
  digest: string
  bodies: ReadyBodies
}

export const prepareSnapshot = (course: Course): PreparedSnapshot => {
  const html = new Map<string, string>()
  const prefix = ownPrefix(course)
  const referring = withHtml(course, (page) => {
    const shared = withoutOwn(page, prefix)
    const hash = sha256(shared.html)
    html.set(hash, shared.html)
    return referenceTo(hash, shared.own)
  })
  return {
    course,
    document: JSON.stringify(referring),
    digest: digestOfMade({ ...referring, readAt: '', revision: '' }),
    bodies: { html, named: [...html.keys()].map((hash) => ({ id: hash, hash, own: [] })) },
  }
}

/** Hashes of the pages that a stored snapshot names. */
export const bodiesOfSnapshot = (document: string): string[] => [
  ...new Set(
    everyCourseItem(JSON.parse(document) as Course).flatMap(({ item }) =>
      item.html === null ? [] : [hashOf(item.html)],
    ),
  ),
]

const storedDigest = async (database: Database, courseId: number): Promise<string | null> =>
  (
    await firstRow<{ digest: string }>(
      database,
      `SELECT digest
       FROM snapshots
       WHERE course_id = ?`,
      [courseId],
    )
  )?.digest ?? null

/** Stores how a course stands. Its pages were kept before. */
export const storeSnapshot = async (
  database: Database,
  courseId: number,
  { course, document, digest, bodies }: PreparedSnapshot,
): Promise<void> => {
  if ((await storedDigest(database, courseId)) !== digest) {
    await nameBodies(database, courseId, bodies.named)
    await storeCohortNames(database, courseId, course)
  }
  await change(
    database,
    `INSERT INTO snapshots (course_id, revision, read_at, digest, document, is_shell)
     VALUES (?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE revision = VALUES(revision), read_at = VALUES(read_at),
       digest = VALUES(digest), document = VALUES(document), is_shell = VALUES(is_shell)`,
    [courseId, course.revision, rowOfInstant(course.readAt), digest, document, isShell(course)],
  )
}

/** A page as it is stored: the hash and HTML of what it shares with others, and what is its course's own in it. */
export interface StoredPage extends SharedPage {
  hash: string
}

export interface StoredSnapshot {
  course: Course
  /** The pages of the course, by their HTML in it. */
  pages: ReadonlyMap<string, StoredPage>
  /** How many of its modules and items a deployment is recorded to have made. */
  recordedParts: number
}

/**
 * What was last read of these courses, with recorded identity beside what deployment made; nothing for those never read. A
 * snapshot of which a page is missing is none: the course has to be read again.
 */
export const findSnapshots = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, StoredSnapshot>> => {
  const ids = anyOf(courseIds)
  const rows = await rowsOf<{ course_id: number; document: string; read_at: string }>(
    database,
    `SELECT course_id, document, read_at
     FROM snapshots
     WHERE course_id IN ${ids.sql}`,
    ids.values,
  )
  const read = rows.map((row) => ({ row, course: storedCourseOf(row) }))
  const hashes = new Set<string>()
  for (const { course } of read)
    for (const { item } of everyCourseItem(course))
      if (item.html !== null) hashes.add(hashOf(item.html))
  const bodies = await findBodies(database, hashes)
  const identities = await listIdentities(database, courseIds)
  return new Map(
    read.flatMap(({ row, course }): [number, StoredSnapshot][] => {
      const pages = new Map<string, StoredPage>()
      let isWhole = true
      const whole = withHtml(course, (text) => {
        const kept = bodies.get(hashOf(text))
        if (kept === undefined) {
          isWhole = false
          return text
        }
        const page = { hash: hashOf(text), html: kept, own: ownOf(text) }
        const html = withOwn(page)
        pages.set(html, page)
        return html
      })
      if (!isWhole) return []
      const identity = identities.get(row.course_id) ?? new Map<string, RecordedAs>()
      return [
        [
          row.course_id,
          {
            course: withRecordedIdentity({ ...whole, readAt: instantOfRow(row.read_at) }, identity),
            pages,
            recordedParts: identity.size,
          },
        ],
      ]
    }),
  )
}
export const findSnapshot = async (
  database: Database,
  courseId: number,
): Promise<StoredSnapshot | null> =>
  (await findSnapshots(database, [courseId])).get(courseId) ?? null

/** A course as it was stored, its pages by their references. */
const storedCourseOf = (row: { course_id: number; document: string }): Course => {
  const read = readDocument(Course, JSON.parse(row.document))
  if (!read.ok)
    throw new Error(
      `the snapshot of course ${row.course_id} cannot be read: ${JSON.stringify(read.problems[0])}`,
    )
  return read.value
}

/** What was last read of each of these courses, without page bodies: names, places and settings. */
export const listSnapshots = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Course>> => {
  const ids = anyOf(courseIds)
  const rows = await rowsOf<{ course_id: number; document: string }>(
    database,
    `SELECT course_id, document
     FROM snapshots
     WHERE course_id IN ${ids.sql}`,
    ids.values,
  )
  const identities = await listIdentities(database, courseIds)
  return new Map(
    rows.flatMap((row) => {
      const read = readDocument(Course, JSON.parse(row.document))
      return read.ok
        ? [
            [
              row.course_id,
              withRecordedIdentity(read.value, identities.get(row.course_id) ?? new Map()),
            ] as const,
          ]
        : []
    }),
  )
}
