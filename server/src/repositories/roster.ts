import type { Pool } from 'mysql2/promise'
import type { RosterReport } from '@wickerframe/contract'
import type { RosterCourse } from '@wickerframe/interchange'
import { change, firstRow, inTransaction, rowsOf, type Database } from '@wickerframe/storage'
import { digestOf } from '../digest.ts'
import { recordAudit } from './audit.ts'
import { decidedFields } from './courseDecisions.ts'

const fields = [
  'code',
  'title',
  'term_code',
  'session_code',
  'department',
  'modality',
  'weeks',
  'status',
  'class_section_kind',
] as const
type Stored = Record<(typeof fields)[number], string | number | null> & { id: number }

const wantedOf = (
  course: RosterCourse,
): Record<(typeof fields)[number], string | number | null> => ({
  code: course.code,
  title: course.title,
  term_code: course.term,
  session_code: course.session,
  department: course.department,
  modality: course.modality,
  weeks: course.weeks,
  status: course.status,
  class_section_kind: course.classSectionKind,
})

/**
 * Brings roster courses in: new ones are added, known ones (by platform course id) changed only where they differ.
 * A dry import is rolled back and says what it would do. What somebody decided here stays, whatever the file says.
 * @param asShown throws when the digest of what is about to be kept is not that of what was shown; nothing is kept then
 */
export const importRoster = async (
  pool: Pool,
  courses: readonly RosterCourse[],
  topicsOf: (course: RosterCourse) => Record<string, string>,
  who: string,
  dry: boolean,
  asShown: (digest: string) => void = () => undefined,
): Promise<Imported> => {
  const report: Imported = { added: 0, changed: 0, unchanged: 0, changes: [], kept: [], digest: '' }
  const work = async (database: Database) => {
    Object.assign(report, { added: 0, changed: 0, unchanged: 0, changes: [], kept: [] })
    for (const course of courses) await importOne(database, course, topicsOf(course), report)
    report.digest = digestOf({ courses, ...report, digest: '' })
    if (dry) throw new Dry()
    asShown(report.digest)
    await recordAudit(database, {
      who,
      what: 'roster imported',
      subject: `${courses.length} courses`,
      to: { added: report.added, changed: report.changed },
    })
  }
  await inTransaction(pool, work).catch((cause: unknown) => {
    if (!(cause instanceof Dry)) throw cause
  })
  return report
}

type Imported = Pick<
  RosterReport,
  'added' | 'changed' | 'unchanged' | 'changes' | 'kept' | 'digest'
>

class Dry extends Error {}

const importOne = async (
  database: Database,
  course: RosterCourse,
  topics: Record<string, string>,
  report: Imported,
): Promise<void> => {
  const wanted = wantedOf(course)
  const stored = await findStored(database, course.platformId)
  if (!stored) {
    const id = await insertCourse(database, course.platformId, topics, wanted)
    await replacePeople(database, id, course)
    report.added += 1
    return
  }
  const name = `${course.code} ${course.title}, ${course.classSections.join(', ')}`
  const decided = await decidedFields(database, stored.id)
  /** Whether somebody decided otherwise here; then it stays, and is told. */
  const isKept = (field: string, here: string, file: string): boolean => {
    const by = decided.get(field)
    if (by === undefined) return false
    report.kept.push({ line: course.line, course: name, field, here, file, by })
    return true
  }
  const differing = fields.filter(
    (field) =>
      stored[field] !== wanted[field] &&
      !isKept(field, String(stored[field] ?? ''), String(wanted[field] ?? '')),
  )
  const changes = differing.map((field) => ({
    line: course.line,
    course: name,
    field: field.replaceAll('_', ' '),
    from: String(stored[field] ?? ''),
    to: String(wanted[field] ?? ''),
  }))
  const sections = await listClassSections(database, stored.id)
  const people = (await listInstructors(database, stored.id)).map(
    (person) => `${person.name} <${person.email}>`,
  )
  const wantedSections = course.classSections.toSorted()
  const wantedPeople = course.instructors.map((person) => `${person.name} <${person.email}>`)
  const takesSections =
    sections.join() !== wantedSections.join() &&
    !isKept('class sections', sections.join(', '), wantedSections.join(', '))
  const takesPeople =
    people.join() !== wantedPeople.join() &&
    !isKept('instructors', people.join(', '), wantedPeople.join(', '))
  if (takesSections)
    changes.push({
      line: course.line,
      course: name,
      field: 'class sections',
      from: sections.join(', '),
      to: wantedSections.join(', '),
    })
  if (takesPeople)
    changes.push({
      line: course.line,
      course: name,
      field: 'instructors',
      from: people.join(', '),
      to: wantedPeople.join(', '),
    })
  if (changes.length === 0) {
    report.unchanged += 1
    return
  }
  if (differing.length > 0) await updateCourse(database, stored.id, differing, wanted)
  if (takesSections) await replaceClassSections(database, stored.id, course.classSections)
  if (takesPeople) await replaceInstructors(database, stored.id, course.instructors)
  report.changed += 1
  report.changes.push(...changes)
}

const findStored = (database: Database, platformId: string) =>
  firstRow<Stored>(
    database,
    `SELECT id, ${fields.join(', ')}
     FROM courses
     WHERE platform_id = ?
     FOR UPDATE`,
    [platformId],
  )
const insertCourse = async (
  database: Database,
  platformId: string,
  topics: Record<string, string>,
  wanted: ReturnType<typeof wantedOf>,
): Promise<number> =>
  (
    await change(
      database,
      `INSERT INTO courses (platform_id, topics, ${fields.join(', ')})
       VALUES (?, ?, ${fields.map(() => '?').join(', ')})`,
      [platformId, JSON.stringify(topics), ...fields.map((field) => wanted[field])],
    )
  ).id
const updateCourse = (
  database: Database,
  id: number,
  differing: readonly (typeof fields)[number][],
  wanted: ReturnType<typeof wantedOf>,
) =>
  change(
    database,
    `UPDATE courses
     SET ${differing.map((field) => `${field} = ?`).join(', ')}
     WHERE id = ?`,
    [...differing.map((field) => wanted[field]), id],
  )

const replacePeople = async (
  database: Database,
  id: number,
  course: RosterCourse,
): Promise<void> => {
  await replaceClassSections(database, id, course.classSections)
  await replaceInstructors(database, id, course.instructors)
}

const listClassSections = async (database: Database, courseId: number): Promise<string[]> =>
  (
    await rowsOf<{ name: string }>(
      database,
      `SELECT name
       FROM class_sections
       WHERE course_id = ?
       ORDER BY name`,
      [courseId],
    )
  ).map((row) => row.name)

/** Makes these the class sections of a course, and no others. */
export const replaceClassSections = async (
  database: Database,
  courseId: number,
  names: readonly string[],
): Promise<void> => {
  await removeClassSections(database, courseId)
  for (const name of names) await insertClassSection(database, courseId, name)
}
const removeClassSections = (database: Database, courseId: number) =>
  change(
    database,
    `DELETE FROM class_sections
     WHERE course_id = ?`,
    [courseId],
  )
const insertClassSection = (database: Database, courseId: number, name: string) =>
  change(
    database,
    `INSERT INTO class_sections (course_id, name)
     VALUES (?, ?)`,
    [courseId, name],
  )

interface Instructor {
  email: string
  name: string
}
const listInstructors = (database: Database, courseId: number): Promise<Instructor[]> =>
  rowsOf(
    database,
    `SELECT email, name
     FROM course_instructors
     WHERE course_id = ?
     ORDER BY position`,
    [courseId],
  )

/** Makes these the instructors of a course, in this order, and no others. */
export const replaceInstructors = async (
  database: Database,
  courseId: number,
  people: readonly Instructor[],
): Promise<void> => {
  await removeInstructors(database, courseId)
  for (const [position, person] of people.entries())
    await insertInstructor(database, courseId, person, position)
}
const removeInstructors = (database: Database, courseId: number) =>
  change(
    database,
    `DELETE FROM course_instructors
     WHERE course_id = ?`,
    [courseId],
  )
const insertInstructor = (
  database: Database,
  courseId: number,
  { email, name }: Instructor,
  position: number,
) =>
  change(
    database,
    `INSERT INTO course_instructors (course_id, email, name, position)
     VALUES (?, ?, ?, ?)`,
    [courseId, email, name, position],
  )
