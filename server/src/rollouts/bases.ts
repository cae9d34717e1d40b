import type { z } from 'zod'
import {
  Base,
  emptyBase,
  identityOf,
  readDocument,
  RecordedParts,
  type RecordedAs,
} from '@wickerframe/core'
import { anyOf, change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { pack, unpack } from '../packed.ts'

/** A base as it is kept, or so much of it as a schema asks for. */
const readBase = <S extends z.ZodType>(schema: S, courseId: number, document: Buffer) => {
  const read = readDocument(schema, unpack(document))
  if (!read.ok)
    throw new Error(
      `the base of course ${courseId} cannot be read: ${JSON.stringify(read.problems[0])}`,
    )
  return read.value
}

const readTogether = 200

/** What was last deployed to each of these courses, as far as the schema asks for it; nothing for those nothing was deployed to. */
const listBasesAs = async <S extends z.ZodType>(
  schema: S,
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, z.output<S>>> => {
  const bases = new Map<number, z.output<S>>()
  for (let i = 0; i < courseIds.length; i += readTogether) {
    const part = anyOf(courseIds.slice(i, i + readTogether))
    for (const row of await rowsOf<{ course_id: number; document: Buffer }>(
      database,
      `SELECT course_id, document
       FROM course_bases
       WHERE course_id IN ${part.sql}`,
      part.values,
    ))
      bases.set(row.course_id, readBase(schema, row.course_id, row.document))
  }
  return bases
}

/** Recorded identity of each of these courses, by the platform's ids; nothing for those nothing was deployed to. */
export const listIdentities = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Map<string, RecordedAs>>> =>
  new Map(
    [...(await listBasesAs(RecordedParts, database, courseIds))].map(([courseId, parts]) => [
      courseId,
      identityOf(parts),
    ]),
  )

/** What was last deployed to a course; empty when nothing was. Its bodies stay where they are kept. */
export const findBase = async (database: Database, courseId: number): Promise<Base> =>
  (await listBasesAs(Base, database, [courseId])).get(courseId) ?? emptyBase()

/** Recorded identity of a course, by the platform's ids. */
export const recordedIdentity = async (
  database: Database,
  courseId: number,
): Promise<Map<string, RecordedAs>> => identityOf(await findBase(database, courseId))

export const storeBase = async (
  database: Database,
  courseId: number,
  base: Base,
): Promise<void> => {
  await change(
    database,
    `INSERT INTO course_bases (course_id, document)
     VALUES (?, ?)
     ON DUPLICATE KEY UPDATE document = VALUES(document)`,
    [courseId, pack(base)],
  )
}

/** Revision of what was deployed to a course, under a lock: raised with every deployment, so that nobody plans on an old one. */
export const lockBaseRevision = async (database: Database, courseId: number): Promise<number> =>
  (
    await firstRow<{ base_revision: number }>(
      database,
      `SELECT base_revision
       FROM courses
       WHERE id = ?
       FOR UPDATE`,
      [courseId],
    )
  )?.base_revision ?? 0
export const baseRevision = async (database: Database, courseId: number): Promise<number> =>
  (
    await firstRow<{ base_revision: number }>(
      database,
      `SELECT base_revision
       FROM courses
       WHERE id = ?`,
      [courseId],
    )
  )?.base_revision ?? 0
export const raiseBaseRevision = async (database: Database, courseId: number): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     SET base_revision = base_revision + 1
     WHERE id = ?`,
    [courseId],
  )
}
