import {
  readDocument,
  bodiesOfBase,
  bodiesOfEntries,
  bodiesOfRecord,
  NextBase,
  Base,
  bodiesBefore,
  BeforeChanges,
  UndoRecord,
} from '@wickerframe/core'
import { anyOf, change, firstRow, inTransaction, rowsOf, type Database } from '@wickerframe/storage'
import type { Pool } from 'mysql2/promise'
import { z } from 'zod'
import { nameBodies, unnamedBodies } from './courseBodies.ts'
import { unpack, unpackText } from '../packed.ts'
import { findBodies } from './pageBodies.ts'
import { bodiesOfSnapshot } from './snapshots.ts'

/*
 * What nobody names any more is taken out: first the names that a course no longer needs, then the bodies that no course
 * names. The database itself refuses to take out a body that is named.
 */

/** Of a prepared or sent change set, as far as it names bodies. */
const Payload = z.object({
  note: z.object({ next: NextBase.optional(), before: BeforeChanges.optional() }),
})

const must = <T>(what: string, schema: z.ZodType<T>, value: unknown): T => {
  const read = readDocument(schema, value)
  if (read.ok) return read.value
  throw new Error(
    `${what} cannot be read, so nothing of it is taken out: ${JSON.stringify(read.problems[0])}`,
  )
}

/** Ids of every body that something stored of a course names. */
const namedBy = async (database: Database, courseId: number): Promise<Set<string>> => {
  const named = new Set<string>()
  const add = (ids: Iterable<string>) => {
    for (const id of ids) named.add(id)
  }
  for (const { document } of await baseRows(database, courseId))
    add(bodiesOfBase(must(`the base of course ${courseId}`, Base, unpack(document))))
  for (const { document } of await snapshotRows(database, courseId)) add(bodiesOfSnapshot(document))
  for (const { number, undo_record: record } of await undoRows(database, courseId))
    add(
      bodiesOfRecord(
        must(`deployment ${number} of course ${courseId}`, UndoRecord, unpack(record)),
      ),
    )
  for (const { id, payload } of await payloadRows(database, courseId)) {
    const { note } = must(`the change set of task ${id}`, Payload, JSON.parse(unpackText(payload)))
    add(bodiesOfEntries(note.next?.parts ?? []))
    if (note.before) add(bodiesBefore(note.before))
  }
  return named
}

/**
 * Brings the names of a course in line with what is stored of it, under its lock. What was stored before courses named their
 * bodies is named now, as far as it is kept.
 * @returns how many names were forgotten; null when another one is at it
 */
export const tidyCourse = (pool: Pool, courseId: number): Promise<number | null> =>
  inTransaction(pool, async (database) => {
    if (!(await lockCourse(database, courseId))) return null
    const named = await namedBy(database, courseId)
    const unnamed = await unnamedBodies(database, courseId, [...named])
    const kept = await findBodies(database, unnamed)
    await nameBodies(
      database,
      courseId,
      [...kept.keys()].map((id) => ({ id, hash: id, own: [] })),
    )
    const forgotten = (await namesOf(database, courseId)).filter((id) => !named.has(id))
    for (let i = 0; i < forgotten.length; i += 200)
      await forgetNames(database, courseId, forgotten.slice(i, i + 200))
    await markKnown(database, courseId)
    return forgotten.length
  })

/** Courses whose names were looked at longest ago, those never looked at first. */
export const coursesToTidy = async (
  database: Database,
  most: number,
  hours: number,
): Promise<number[]> =>
  (
    await rowsOf<{ id: number }>(
      database,
      `SELECT id
       FROM courses
       WHERE bodies_known_at IS NULL OR bodies_known_at < TIMESTAMPADD(HOUR, ?, NOW(3))
       ORDER BY bodies_known_at, id
       LIMIT ?`,
      [-hours, String(most)],
    )
  ).map((row) => row.id)

/**
 * Takes out bodies that no course names and that were not put in lately: whoever puts one in names it only a moment later.
 * Nothing is taken out before the names of every course are known.
 * @returns how many were taken out
 */
export const collectBodies = async (
  database: Database,
  most: number,
  hours: number,
): Promise<number> =>
  (await hasUnknownCourse(database)) ? 0 : removeUnnamed(database, most, hours)

const hasUnknownCourse = async (database: Database): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT id
     FROM courses
     WHERE bodies_known_at IS NULL
     LIMIT 1`,
  )) !== null
const removeUnnamed = async (database: Database, most: number, hours: number): Promise<number> =>
  (
    await change(
      database,
      `DELETE FROM page_bodies
       WHERE saved_at < TIMESTAMPADD(HOUR, ?, NOW(3))
         AND NOT EXISTS (SELECT 1 FROM course_bodies WHERE course_bodies.hash = page_bodies.hash)
       LIMIT ?`,
      [-hours, String(most)],
    )
  ).affected

const lockCourse = async (database: Database, courseId: number): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT id
     FROM courses
     WHERE id = ?
     FOR UPDATE SKIP LOCKED`,
    [courseId],
  )) !== null
const baseRows = (database: Database, courseId: number) =>
  rowsOf<{ document: Buffer }>(
    database,
    `SELECT document
     FROM course_bases
     WHERE course_id = ?`,
    [courseId],
  )
const snapshotRows = (database: Database, courseId: number) =>
  rowsOf<{ document: string }>(
    database,
    `SELECT document
     FROM snapshots
     WHERE course_id = ?`,
    [courseId],
  )
const undoRows = (database: Database, courseId: number) =>
  rowsOf<{ number: number; undo_record: Buffer }>(
    database,
    `SELECT number, undo_record
     FROM deployments
     WHERE course_id = ? AND undo_record IS NOT NULL`,
    [courseId],
  )
const payloadRows = (database: Database, courseId: number) =>
  rowsOf<{ id: number; payload: Buffer }>(
    database,
    `SELECT id, payload
     FROM tasks
     WHERE course_id = ? AND payload IS NOT NULL`,
    [courseId],
  )
const namesOf = async (database: Database, courseId: number): Promise<string[]> =>
  (
    await rowsOf<{ body: string }>(
      database,
      `SELECT body
       FROM course_bodies
       WHERE course_id = ?`,
      [courseId],
    )
  ).map((row) => row.body)
const forgetNames = (database: Database, courseId: number, ids: readonly string[]) => {
  const some = anyOf(ids)
  return change(
    database,
    `DELETE FROM course_bodies
     WHERE course_id = ? AND body IN ${some.sql}`,
    [courseId, ...some.values],
  )
}
const markKnown = (database: Database, courseId: number) =>
  change(
    database,
    `UPDATE courses
     SET bodies_known_at = NOW(3)
     WHERE id = ?`,
    [courseId],
  )
