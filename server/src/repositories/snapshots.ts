import { Course, emptyBase, identityOf, isShell, ownPrefix, readDocument, withOwn, withoutOwn, withRecordedIdentity, type CourseItem, type CourseModule } from '@wickerframe/core'
import type { Pool } from 'mysql2/promise'
import { z } from 'zod'
import { change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { digestOfMade, sha256 } from '../digest.ts'
import { listBases, recordedIdentity } from './bases.ts'
import { storeCohortNames } from './cohort.ts'
import { instantOfRow, rowOfInstant } from './moment.ts'
import { savePageBodies } from './pageBodies.ts'

/**
 * Pages are kept once for all courses, under the hash of what they share with others; a snapshot holds `sha256:HASH` in
 * their place, and after it what is the course's own in them.
 */
const reference = 'sha256:'

const referenceTo = (hash: string, own: readonly string[]): string => `${reference}${hash}${own.length > 0 ? ` ${JSON.stringify(own)}` : ''}`
const hashOf = (text: string): string => text.slice(reference.length, reference.length + 64)
const ownOf = (text: string): string[] => (text.length > reference.length + 64 ? z.array(z.string()).parse(JSON.parse(text.slice(reference.length + 65))) : [])

const withHtml = (course: Course, write: (html: string) => string): Course => {
  const item = (one: CourseItem): CourseItem => (one.html === null ? one : { ...one, html: write(one.html) })
  const module = (one: CourseModule): CourseModule => ({ ...one, items: one.items.map(item), modules: one.modules.map(module) })
  return { ...course, modules: course.modules.map(module), stray: course.stray.map(item) }
}

/** A course as read, ready to be stored: its pages are kept already. */
export interface PreparedSnapshot {
  course: Course
  document: string
  /** Of its content, which its age and revision do not change. */
  digest: string
}

/** Keeps the pages of what was read, outside any transaction. */
export const prepareSnapshot = async (pool: Pool, course: Course): Promise<PreparedSnapshot> => {
  const bodies = new Map<string, string>()
  const prefix = ownPrefix(course)
  const referring = withHtml(course, (html) => {
    const shared = withoutOwn(html, prefix)
    const hash = sha256(shared.html)
    bodies.set(hash, shared.html)
    return referenceTo(hash, shared.own)
  })
  await savePageBodies(pool, bodies)
  return { course, document: JSON.stringify(referring), digest: digestOfMade({ ...referring, readAt: '', revision: '' }) }
}

/** Stores what was read of a course. */
export const storeSnapshot = async (database: Database, courseId: number, { course, document, digest }: PreparedSnapshot): Promise<void> => {
  const before = await firstRow<{ digest: string }>(database, 'SELECT digest FROM snapshots WHERE course_id = ?', [courseId])
  if (before?.digest !== digest) await storeCohortNames(database, courseId, course)
  await change(
    database,
    `INSERT INTO snapshots (course_id, revision, read_at, digest, document, is_shell) VALUES (?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE revision = VALUES(revision), read_at = VALUES(read_at), digest = VALUES(digest), document = VALUES(document), is_shell = VALUES(is_shell)`,
    [courseId, course.revision, rowOfInstant(course.readAt), digest, document, isShell(course)],
  )
}

export interface StoredSnapshot {
  course: Course
  digest: string
}

/** What was last read of a course, with recorded identity beside what deployment made; null when it was never read. */
export const findSnapshot = async (database: Database, courseId: number): Promise<StoredSnapshot | null> => {
  const row = await firstRow<{ document: string; digest: string; read_at: string }>(database, 'SELECT document, digest, read_at FROM snapshots WHERE course_id = ?', [courseId])
  if (!row) return null
  const read = readDocument(Course, JSON.parse(row.document))
  if (!read.ok) throw new Error(`the snapshot of course ${courseId} cannot be read: ${JSON.stringify(read.problems[0])}`)
  const hashes = new Set<string>()
  withHtml(read.value, (html) => {
    hashes.add(hashOf(html))
    return html
  })
  const bodies = new Map<string, string>()
  const all = [...hashes]
  for (let i = 0; i < all.length; i += 200) {
    const part = all.slice(i, i + 200)
    for (const body of await rowsOf<{ hash: string; html: string }>(database, `SELECT hash, html FROM page_bodies WHERE hash IN (${part.map(() => '?').join(', ')})`, part)) bodies.set(body.hash, body.html)
  }
  const course = withHtml(read.value, (html) => withOwn({ html: bodies.get(hashOf(html)) ?? '', own: ownOf(html) }))
  const identity = await recordedIdentity(database, courseId)
  return { course: withRecordedIdentity({ ...course, readAt: instantOfRow(row.read_at) }, identity), digest: row.digest }
}

/** What was last read of each of these courses, without page bodies: names, places and settings. */
export const listSnapshots = async (database: Database, courseIds: readonly number[]): Promise<Map<number, Course>> => {
  if (courseIds.length === 0) return new Map()
  const rows = await rowsOf<{ course_id: number; document: string }>(database, `SELECT course_id, document FROM snapshots WHERE course_id IN (${courseIds.map(() => '?').join(', ')})`, [...courseIds])
  const bases = await listBases(database, courseIds)
  return new Map(
    rows.flatMap((row) => {
      const read = readDocument(Course, JSON.parse(row.document))
      return read.ok ? [[row.course_id, withRecordedIdentity(read.value, identityOf(bases.get(row.course_id) ?? emptyBase()))] as const] : []
    }),
  )
}
