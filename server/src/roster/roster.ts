import type { Pool } from 'mysql2/promise'
import type { RosterReport } from '@wickerframe/contract'
import type { RosterCourse } from '@wickerframe/interchange'
import { anyOf, change, inTransaction, rowsOf, type Database } from '@wickerframe/storage'
import { digestOf } from '../digest.ts'
import { recordAudit } from '../audit/audit.ts'
import { byCourse } from '../courses/byCourse.ts'
import { decidedFields } from '../courses/courseDecisions.ts'
import { addPeople, peopleByCourse, replacePeople } from '../courses/coursePeople.ts'
import {
  peopleOfRoster,
  rosterDifference,
  rosterFields,
  rosterValues,
  type KnownCourse,
  type RosterDifference,
  type RosterField,
  type RosterValues,
} from './rosterDifference.ts'

/** So many courses are looked up, and written, together. */
const together = 500
/** Class sections that one statement writes. */
const rowsTogether = 2000

type Imported = Pick<
  RosterReport,
  'added' | 'changed' | 'unchanged' | 'changes' | 'kept' | 'digest'
>
const nothing = (): Imported => ({
  added: 0,
  changed: 0,
  unchanged: 0,
  changes: [],
  kept: [],
  digest: '',
})

const inBatches = async (
  courses: readonly RosterCourse[],
  work: (batch: readonly RosterCourse[]) => Promise<void>,
  tell: (done: number) => void,
): Promise<void> => {
  for (let at = 0; at < courses.length; at += together) {
    await work(courses.slice(at, at + together))
    tell(Math.min(courses.length, at + together))
    // Between batches others are served.
    await new Promise((resolve) => setImmediate(resolve))
  }
}

/** What importing these courses would do. Nothing is written, and nothing locked. */
export const rosterPreview = async (
  pool: Pool,
  courses: readonly RosterCourse[],
  tell: (done: number) => void = () => undefined,
): Promise<Imported> => {
  const report = nothing()
  await inBatches(
    courses,
    async (batch) => {
      const known = await knownCourses(pool, batch)
      for (const course of batch) reportOn(report, course, known.get(course.platformId))
    },
    tell,
  )
  return { ...report, digest: digestOf({ courses, ...report }) }
}

/**
 * Brings roster courses in, all or none: new ones are added, known ones (by platform course id) changed only where they
 * differ. What somebody decided here stays, whatever the file says.
 * @param asShown throws when the digest of what is about to be kept is not that of what was shown; nothing is kept then
 */
export const importRoster = async (
  pool: Pool,
  courses: readonly RosterCourse[],
  topicsOf: (course: RosterCourse) => Record<string, string>,
  who: string,
  asShown: (digest: string) => void = () => undefined,
  tell: (done: number) => void = () => undefined,
): Promise<Imported> =>
  inTransaction(pool, async (database) => {
    const report = nothing()
    await inBatches(
      courses,
      async (batch) => {
        const known = await knownCourses(database, batch, 'FOR UPDATE')
        const added: RosterCourse[] = []
        for (const course of batch) {
          const there = known.get(course.platformId)
          const difference = reportOn(report, course, there)
          if (there && difference) await takeDifference(database, there.id, course, difference)
          else if (!there) added.push(course)
        }
        await addCourses(database, added, topicsOf)
      },
      tell,
    )
    const digest = digestOf({ courses, ...report })
    asShown(digest)
    await recordAudit(database, {
      who,
      what: 'roster imported',
      subject: `${courses.length} courses`,
      to: { added: report.added, changed: report.changed },
    })
    return { ...report, digest }
  })

/** Adds one course to a report. @returns what is to be taken of the file, for a course that is known */
const reportOn = (
  report: Imported,
  course: RosterCourse,
  known: KnownCourse | undefined,
): RosterDifference | null => {
  if (!known) {
    report.added += 1
    return null
  }
  const difference = rosterDifference(course, known)
  report.kept.push(...difference.kept)
  report.changes.push(...difference.changes)
  if (difference.changes.length === 0) report.unchanged += 1
  else report.changed += 1
  return difference
}

const takeDifference = async (
  database: Database,
  id: number,
  course: RosterCourse,
  { fields, takesSections, people }: RosterDifference,
): Promise<void> => {
  if (fields.length > 0) await updateCourse(database, id, fields, rosterValues(course))
  if (takesSections) await replaceClassSections(database, id, course.classSections)
  if (people) await replacePeople(database, id, people)
}

const addCourses = async (
  database: Database,
  courses: readonly RosterCourse[],
  topicsOf: (course: RosterCourse) => Record<string, string>,
): Promise<void> => {
  if (courses.length === 0) return
  await insertCourses(database, courses, topicsOf)
  const ids = new Map((await findStored(database, courses)).map((row) => [row.platform_id, row.id]))
  const idOf = (course: RosterCourse) => ids.get(course.platformId) ?? 0
  await insertClassSections(
    database,
    courses.flatMap((course) => course.classSections.map((name) => [idOf(course), name] as const)),
  )
  await addPeople(
    database,
    courses.map((course) => ({ id: idOf(course), people: peopleOfRoster(course) })),
  )
}

/** Courses of these that are stored, by their platform course id. */
const knownCourses = async (
  database: Database,
  courses: readonly RosterCourse[],
  lock: 'FOR UPDATE' | '' = '',
): Promise<Map<string, KnownCourse>> => {
  const stored = await findStored(database, courses, lock)
  const ids = stored.map((row) => row.id)
  const sections = byCourse(await listClassSections(database, ids))
  const people = await peopleByCourse(database, ids)
  const decided = await decidedFields(database, ids)
  return new Map(
    stored.map(({ id, platform_id, ...values }) => [
      platform_id,
      {
        id,
        values,
        classSections: (sections.get(id) ?? []).map((row) => row.name).sort(),
        people: people.get(id) ?? [],
        decided: decided.get(id) ?? new Map(),
      },
    ]),
  )
}

type Stored = RosterValues & { id: number; platform_id: string }
const findStored = (
  database: Database,
  courses: readonly RosterCourse[],
  lock: 'FOR UPDATE' | '' = '',
): Promise<Stored[]> => {
  const list = anyOf(courses.map((course) => course.platformId))
  return rowsOf<Stored>(
    database,
    `SELECT id, platform_id, ${rosterFields.join(', ')}
     FROM courses
     WHERE platform_id IN ${list.sql} ${lock}`,
    list.values,
  )
}
const placeholders = (rows: number, columns: number): string =>
  Array.from(
    { length: rows },
    () => `(${Array.from({ length: columns }, () => '?').join(', ')})`,
  ).join(', ')
const insertCourses = (
  database: Database,
  courses: readonly RosterCourse[],
  topicsOf: (course: RosterCourse) => Record<string, string>,
) =>
  change(
    database,
    `INSERT INTO courses (platform_id, topics, ${rosterFields.join(', ')})
     VALUES ${placeholders(courses.length, rosterFields.length + 2)}`,
    courses.flatMap((course) => {
      const values = rosterValues(course)
      return [
        course.platformId,
        JSON.stringify(topicsOf(course)),
        ...rosterFields.map((field) => values[field]),
      ]
    }),
  )
const updateCourse = (
  database: Database,
  id: number,
  differing: readonly RosterField[],
  wanted: RosterValues,
) =>
  change(
    database,
    `UPDATE courses
     SET ${differing.map((field) => `${field} = ?`).join(', ')}
     WHERE id = ?`,
    [...differing.map((field) => wanted[field]), id],
  )

const listClassSections = (database: Database, courseIds: readonly number[]) => {
  const list = anyOf(courseIds)
  return rowsOf<{ course_id: number; name: string }>(
    database,
    `SELECT course_id, name
     FROM class_sections
     WHERE course_id IN ${list.sql}`,
    list.values,
  )
}

/** Makes these the class sections of a course, and no others. */
export const replaceClassSections = async (
  database: Database,
  courseId: number,
  names: readonly string[],
): Promise<void> => {
  await removeClassSections(database, courseId)
  await insertClassSections(
    database,
    names.map((name) => [courseId, name]),
  )
}
const removeClassSections = (database: Database, courseId: number) =>
  change(
    database,
    `DELETE FROM class_sections
     WHERE course_id = ?`,
    [courseId],
  )
const insertClassSections = async (
  database: Database,
  rows: readonly (readonly [courseId: number, name: string])[],
): Promise<void> => {
  for (let at = 0; at < rows.length; at += rowsTogether) {
    const part = rows.slice(at, at + rowsTogether)
    await change(
      database,
      `INSERT INTO class_sections (course_id, name)
       VALUES ${placeholders(part.length, 2)}`,
      part.flat(),
    )
  }
}
