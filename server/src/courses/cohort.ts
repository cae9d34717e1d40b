import { cohortNames, type CohortClash, type Course } from '@wickerframe/core'
import { anyOf, change, rowsOf, type Database } from '@wickerframe/storage'
import { sha256 } from '../digest.ts'
import { byCourse } from './byCourse.ts'

/** Keeps the names of a course that meet those of others; a name that is gone is forgotten. */
export const storeCohortNames = async (
  database: Database,
  courseId: number,
  course: Course,
): Promise<void> => {
  await forgetCohortNames(database, courseId)
  const names = cohortNames(course)
  for (let i = 0; i < names.length; i += 200)
    await insertCohortNames(database, courseId, names.slice(i, i + 200))
}

const forgetCohortNames = (database: Database, courseId: number) =>
  change(
    database,
    `DELETE FROM cohort_names
     WHERE course_id = ?`,
    [courseId],
  )
const insertCohortNames = (
  database: Database,
  courseId: number,
  names: ReturnType<typeof cohortNames>,
) =>
  change(
    database,
    `INSERT IGNORE INTO cohort_names (course_id, term_code, kind, folded_hash, name)
     VALUES ${names.map(() => '(?, (SELECT term_code FROM courses WHERE id = ?), ?, ?, ?)').join(', ')}`,
    names.flatMap(({ kind, name, folded }) => [courseId, courseId, kind, sha256(folded), name]),
  )

/** The first other teaching course of the term that carries a name as well; `more` narrows down which. */
const otherWith = (more: string) => `(
    SELECT CONCAT(courses.code, ' ', courses.title)
    FROM cohort_names AS other FORCE INDEX (cohort_names_alike)
    STRAIGHT_JOIN courses ON courses.id = other.course_id AND courses.status = 'teaching'
    WHERE other.folded_hash = own.folded_hash
      AND other.kind = own.kind
      AND other.term_code = own.term_code
      AND other.course_id <> own.course_id ${more}
    ORDER BY other.course_id
    LIMIT 1
  )`
const sharingAnInstructor = `AND other.course_id IN (
      SELECT theirs.course_id
      FROM course_people AS mine
      JOIN course_people AS theirs ON theirs.email = mine.email
      WHERE mine.course_id = own.course_id AND 'assistant' NOT IN (mine.duty, theirs.duty)
    )`

/**
 * Which names of these courses other teaching courses of their term carry as well, as far as those were read: each with the
 * first of them; for the name of the course itself the first that shares an instructor, if one does. The work grows with
 * the courses' own names, not with the courses that share them nor with the terms that went before; that labels are shared is usual, and not looked at.
 */
export const findClashes = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, CohortClash[]>> => {
  const ids = anyOf(courseIds)
  const rows = await rowsOf<{
    course_id: number
    kind: CohortClash['kind']
    name: string
    other: string | null
    shared: string | null
  }>(
    database,
    `SELECT own.course_id, own.kind, own.name, ${otherWith('')} AS other, CASE
       WHEN own.kind = 'course-name' THEN ${otherWith(sharingAnInstructor)} END AS shared
     FROM cohort_names AS own
     WHERE own.course_id IN ${ids.sql} AND own.kind <> 'label'
     ORDER BY own.course_id, own.kind, own.folded_hash`,
    ids.values,
  )
  return byCourse(
    rows.flatMap(({ course_id, kind, name, other: first, shared }) =>
      first === null
        ? []
        : [{ course_id, kind, name, others: [shared ?? first], sharesInstructor: shared !== null }],
    ),
  )
}
