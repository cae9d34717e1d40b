import {
  anyOf,
  change,
  firstRow,
  institutionNow,
  rowsOf,
  type Database,
} from '@wickerframe/storage'
import { waiverColumns, type WaiverRow } from './waivers.ts'

/** Whether a waiver for many courses reaches a course, as a condition on both. */
export const reaches = `waivers.course_id IS NULL
  AND (waivers.department IS NULL OR waivers.department = courses.department)
  AND (waivers.template_id IS NULL OR waivers.template_id = courses.template_id)
  AND (
    waivers.term_code IS NULL OR waivers.term_code = courses.term_code
    OR waivers.carried
    AND (SELECT later.first_day FROM terms AS later WHERE later.code = courses.term_code)
      > (SELECT its.first_day FROM terms AS its WHERE its.code = waivers.term_code)
  )
  AND (
    NOT waivers.listed
    OR EXISTS (
      SELECT 1
      FROM waiver_courses
      WHERE waiver_courses.waiver_id = waivers.id AND waiver_courses.course_id = courses.id
    )
  )`

/** Approved waivers for many courses that reach these, once for each of them. */
export const wideWaiverRows = (
  database: Database,
  courseIds: readonly number[],
): Promise<(WaiverRow & { course_id: number })[]> => {
  const ids = anyOf(courseIds)
  return rowsOf(
    database,
    `SELECT ${waiverColumns.replace('waivers.course_id', 'courses.id AS course_id')}
     FROM waivers
     JOIN courses ON ${reaches}
     WHERE waivers.course_id IS NULL AND waivers.state = 'approved' AND courses.id IN ${ids.sql}
     ORDER BY waivers.id`,
    ids.values,
  )
}

export const coursesReachedBy = async (database: Database, waiver: number): Promise<number[]> =>
  (
    await rowsOf<{ id: number }>(
      database,
      `SELECT courses.id
       FROM waivers
       JOIN courses ON ${reaches}
       WHERE waivers.id = ?
       ORDER BY courses.id`,
      [waiver],
    )
  ).map(({ id }) => id)

export interface NewWideWaiver {
  rule: string | null
  part: string | null
  department: string | null
  templateId: number | null
  /** Code of the term. */
  term: string | null
  /** One by one; null: whichever the rest describes. */
  courses: readonly number[] | null
  from: string
  until: string | null
  carried: boolean
  reason: string
}

export const addWideWaiver = async (
  database: Database,
  waiver: NewWideWaiver,
  by: string,
): Promise<number> => {
  const { id } = await change(
    database,
    `INSERT INTO waivers (
       department, template_id, term_code, listed, carried, scope, rule, part, from_date,
         until_date, reason, state, asked_by, asked_at, decided_by, decided_at
     )
     VALUES (
       ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'approved', ?, ${institutionNow}, ?, ${institutionNow}
     )`,
    [
      waiver.department,
      waiver.templateId,
      waiver.term,
      waiver.courses !== null,
      waiver.carried,
      waiver.part === null ? 'rule' : 'part',
      waiver.rule,
      waiver.part,
      waiver.from,
      waiver.until,
      waiver.reason,
      by,
      by,
    ],
  )
  const courses = waiver.courses ?? []
  for (let i = 0; i < courses.length; i += 500)
    await nameCourses(database, id, courses.slice(i, i + 500))
  return id
}

const nameCourses = (database: Database, waiver: number, courses: readonly number[]) =>
  change(
    database,
    `INSERT IGNORE INTO waiver_courses (waiver_id, course_id)
     VALUES ${courses.map(() => '(?, ?)').join(', ')}`,
    courses.flatMap((course) => [waiver, course]),
  )

/** A waiver for many courses, with the departments whose courses it is about (null: all of them). */
export const findWideWaiver = async (
  database: Database,
  id: number,
): Promise<{ state: string; departments: (string | null)[] } | null> => {
  const row = await firstRow<{ state: string; department: string | null; listed: number }>(
    database,
    `SELECT state, department, listed
     FROM waivers
     WHERE id = ? AND course_id IS NULL`,
    [id],
  )
  if (!row) return null
  return {
    state: row.state,
    departments: row.listed === 0 ? [row.department] : await departmentsListed(database, id),
  }
}

const departmentsListed = async (database: Database, id: number): Promise<string[]> =>
  (
    await rowsOf<{ department: string }>(
      database,
      `SELECT DISTINCT courses.department
       FROM waiver_courses
       JOIN courses ON courses.id = waiver_courses.course_id
       WHERE waiver_courses.waiver_id = ?`,
      [id],
    )
  ).map(({ department }) => department)

/** False when it is withdrawn already. */
export const withdrawWideWaiver = async (
  database: Database,
  id: number,
  by: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE waivers
       SET state = 'withdrawn', decided_by = ?, decided_at = ${institutionNow}
       WHERE id = ? AND course_id IS NULL AND state = 'approved'`,
      [by, id],
    )
  ).affected === 1
