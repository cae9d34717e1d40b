import { Base, emptyBase, identityOf, readDocument, type RecordedAs } from '@wickerframe/core'
import { anyOf, change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { pack, unpack } from '../packed.ts'

const baseOf = (courseId: number, document: Buffer): Base => {
  const read = readDocument(Base, unpack(document))
  if (!read.ok)
    throw new Error(
      `the base of course ${courseId} cannot be read: ${JSON.stringify(read.problems[0])}`,
    )
  return read.value
}

/** What was last deployed to each of these courses; nothing for those nothing was deployed to. */
export const listBases = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Base>> => {
  const bases = new Map<number, Base>()
  for (let i = 0; i < courseIds.length; i += 200) {
    const part = anyOf(courseIds.slice(i, i + 200))
    for (const row of await rowsOf<{ course_id: number; document: Buffer }>(
      database,
      `SELECT course_id, document
       FROM course_bases
       WHERE course_id IN ${part.sql}`,
      part.values,
    ))
      bases.set(row.course_id, baseOf(row.course_id, row.document))
  }
  return bases
}

/** What was last deployed to a course; empty when nothing was. Its bodies stay where they are kept. */
export const findBase = async (database: Database, courseId: number): Promise<Base> =>
  (await listBases(database, [courseId])).get(courseId) ?? emptyBase()

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
