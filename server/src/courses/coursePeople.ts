import type { CoursePerson } from '@wickerframe/core'
import { anyOf, change, rowsOf, type Database } from '@wickerframe/storage'
import { knowInstructors } from '../people/accounts.ts'
import { byCourse } from './byCourse.ts'

/** So many people are written, and so many courses looked up, together. */
const rowsTogether = 2000
const coursesTogether = 1000

/** People of courses, in order, by course. */
export const peopleByCourse = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, CoursePerson[]>> => {
  const people = new Map<number, CoursePerson[]>()
  for (let at = 0; at < courseIds.length; at += coursesTogether)
    for (const [id, rows] of byCourse(
      await peopleRows(database, courseIds.slice(at, at + coursesTogether)),
    ))
      people.set(
        id,
        rows.map(({ name, email, duty }) => ({ name, email, duty })),
      )
  return people
}

/** Who acts for which module, by course: those that have an owner of their own. */
export const moduleOwnersByCourse = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Record<string, string>>> => {
  const owners = new Map<number, Record<string, string>>()
  for (let at = 0; at < courseIds.length; at += coursesTogether)
    for (const { course_id, module, email } of await ownerRows(
      database,
      courseIds.slice(at, at + coursesTogether),
    ))
      owners.set(course_id, { ...owners.get(course_id), [module]: email })
  return owners
}

/** Brings people into courses that had none. Whoever is named is known from then on. */
export const addPeople = async (
  database: Database,
  courses: readonly { id: number; people: readonly CoursePerson[] }[],
): Promise<void> => {
  const rows = courses.flatMap(({ id, people }) =>
    people.map((person, position) => ({ id, position, ...person })),
  )
  for (let at = 0; at < rows.length; at += rowsTogether) {
    const part = rows.slice(at, at + rowsTogether)
    await writePeople(database, part)
    await knowInstructors(database, part)
  }
}

/** Makes these the people of a course, in this order, and no others. Modules of who is taken out fall to the course’s owner. */
export const replacePeople = async (
  database: Database,
  courseId: number,
  people: readonly CoursePerson[],
): Promise<void> => {
  await removeOthers(
    database,
    courseId,
    people.map(({ email }) => email),
  )
  // Nobody owns it for a moment: there may never be two.
  await disown(database, courseId)
  await addPeople(database, [{ id: courseId, people }])
}

/** Makes these the modules with an owner of their own. Owners are people of the course. */
export const replaceModuleOwners = async (
  database: Database,
  courseId: number,
  owners: Readonly<Record<string, string>>,
): Promise<void> => {
  await removeModuleOwners(database, courseId)
  const rows = Object.entries(owners)
  if (rows.length > 0) await insertModuleOwners(database, courseId, rows)
}

const peopleRows = (database: Database, courseIds: readonly number[]) => {
  const ids = anyOf(courseIds)
  return rowsOf<CoursePerson & { course_id: number }>(
    database,
    `SELECT course_id, name, email, duty
     FROM course_people
     WHERE course_id IN ${ids.sql}
     ORDER BY course_id, position, email`,
    ids.values,
  )
}
const ownerRows = (database: Database, courseIds: readonly number[]) => {
  const ids = anyOf(courseIds)
  return rowsOf<{ course_id: number; module: string; email: string }>(
    database,
    `SELECT course_id, module, email
     FROM module_owners
     WHERE course_id IN ${ids.sql}
     ORDER BY course_id, module`,
    ids.values,
  )
}
const writePeople = (
  database: Database,
  rows: readonly (CoursePerson & { id: number; position: number })[],
) =>
  change(
    database,
    `INSERT INTO course_people (course_id, email, name, duty, position)
     VALUES ${rows.map(() => '(?, ?, ?, ?, ?)').join(', ')}
     ON DUPLICATE KEY UPDATE name = VALUES(name), duty = VALUES(duty), position = VALUES(position)`,
    rows.flatMap(({ id, email, name, duty, position }) => [id, email, name, duty, position]),
  )
const removeOthers = (database: Database, courseId: number, emails: readonly string[]) => {
  // No address is empty, and `NOT IN` of nothing would be true of nobody.
  const staying = anyOf(emails.length > 0 ? emails : [''])
  return change(
    database,
    `DELETE FROM course_people
     WHERE course_id = ? AND email NOT IN ${staying.sql}`,
    [courseId, ...staying.values],
  )
}
const disown = (database: Database, courseId: number) =>
  change(
    database,
    `UPDATE course_people
     SET duty = 'instructor'
     WHERE course_id = ? AND duty = 'owner'`,
    [courseId],
  )
const removeModuleOwners = (database: Database, courseId: number) =>
  change(
    database,
    `DELETE FROM module_owners
     WHERE course_id = ?`,
    [courseId],
  )
const insertModuleOwners = (
  database: Database,
  courseId: number,
  owners: readonly (readonly [module: string, email: string])[],
) =>
  change(
    database,
    `INSERT INTO module_owners (course_id, module, email)
     VALUES ${owners.map(() => '(?, ?, ?)').join(', ')}`,
    owners.flatMap(([module, email]) => [courseId, module, email]),
  )
