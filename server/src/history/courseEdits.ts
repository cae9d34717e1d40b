import { Course, editCount, editsBetween, readDocument, type EditDay } from '@wickerframe/core'
import { anyOf, change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { byCourse } from '../courses/byCourse.ts'
import { storeSnapshot, type PreparedSnapshot } from '../snapshots/snapshots.ts'

/**
 * Stores what was read of a course. Whatever is other than it was when it was last read or written by us, people changed: how much
 * that is, is kept by day for courses that something was deployed to. While something that was sent to the course has no answer yet,
 * nobody can tell whose a change is, and none is counted.
 */
export const storeRead = async (
  database: Database,
  courseId: number,
  read: PreparedSnapshot,
  today: string,
): Promise<void> => {
  const before = await lastStored(database, courseId)
  if (before && before.digest !== read.digest) {
    const edits = editsOf(before.document, read.document)
    if (edits > 0) await addEdits(database, courseId, today, edits)
  }
  await storeSnapshot(database, courseId, read)
}

/** How much is other in two documents; nothing where the earlier cannot be read any more: what is read now is stored all the same. */
const editsOf = (before: string, after: string): number => {
  const [was, now] = [before, after].map((document) => readDocument(Course, JSON.parse(document)))
  return was?.ok && now?.ok ? editCount(editsBetween(was.value, now.value)) : 0
}

/** What is stored of a course whose edits are kept, under a lock: of two that read it at once, the later sees what the other stored. */
const lastStored = (database: Database, courseId: number) =>
  firstRow<{ digest: string; document: string }>(
    database,
    `SELECT digest, document
     FROM snapshots
     WHERE course_id = ?
       AND EXISTS (SELECT 1 FROM course_bases WHERE course_bases.course_id = snapshots.course_id)
       AND NOT EXISTS (
         SELECT 1
         FROM tasks
         WHERE tasks.course_id = snapshots.course_id AND tasks.state = 'sent'
       )
     FOR UPDATE`,
    [courseId],
  )
const addEdits = (database: Database, courseId: number, day: string, edits: number) =>
  change(
    database,
    `INSERT INTO course_edits (course_id, day, edits)
     VALUES (?, ?, ?)
     ON DUPLICATE KEY UPDATE edits = edits + VALUES(edits)`,
    [courseId, day, edits],
  )

/** Edits of these courses by day, the earliest first; nothing for those nobody edited. */
export const listEdits = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, EditDay[]>> => {
  const ids = anyOf(courseIds)
  const rows = await rowsOf<{ course_id: number; day: string; edits: number }>(
    database,
    `SELECT course_id, day, edits
     FROM course_edits
     WHERE course_id IN ${ids.sql}
     ORDER BY course_id, day`,
    ids.values,
  )
  return new Map(
    [...byCourse(rows)].map(([courseId, of]) => [
      courseId,
      of.map(({ day, edits }) => ({ day, edits })),
    ]),
  )
}
