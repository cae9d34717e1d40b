import { CourseStatus } from '@wickerframe/contract'
import { CoursePerson } from '@wickerframe/core'
import { change, firstRow, rowsOf, type Database, institutionNow } from '@wickerframe/storage'
import { z } from 'zod'
import { decideField, forgetDecision } from '../courses/courseDecisions.ts'
import { replacePeople } from '../courses/coursePeople.ts'
import { replaceClassSections } from './roster.ts'

/** How two courses stood before one was merged into the other. */
export const BeforeMerge = z.strictObject({
  status: CourseStatus,
  classSections: z.array(z.string()),
  people: z.array(CoursePerson.extend({ duty: CoursePerson.shape.duty.default('instructor') })),
})
export type BeforeMerge = z.output<typeof BeforeMerge>

export interface Roster {
  classSections: readonly string[]
  people: readonly CoursePerson[]
}

/** Merges one course into another: what is decided so, no roster file undoes. */
export const mergeInto = async (
  database: Database,
  id: number,
  into: number,
  before: BeforeMerge,
  after: Roster,
  who: string,
): Promise<void> => {
  await setMerged(database, id, 'merged', into)
  await replaceClassSections(database, into, after.classSections)
  await replacePeople(database, into, after.people)
  await recordMerge(database, id, into, before, who)
  await decideField(database, id, 'status', who)
  await decideField(database, into, 'class sections', who)
  await decideField(database, into, 'instructors', who)
  await decideField(database, into, 'duties', who)
}

/** Takes a merge back: the course stands by itself again, and the other one is what it was but for what came to it since. */
export const unmerge = async (
  database: Database,
  id: number,
  { into, before }: { into: number; before: BeforeMerge },
  now: Roster,
  own: Roster,
): Promise<void> => {
  const mine = new Set(own.classSections)
  const ours = new Set(own.people.map((person) => person.email))
  await replaceClassSections(
    database,
    into,
    now.classSections.filter(
      (section) => before.classSections.includes(section) || !mine.has(section),
    ),
  )
  await replacePeople(
    database,
    into,
    now.people.flatMap((person) => {
      const was = before.people.find(({ email }) => email === person.email)
      if (!ours.has(person.email)) return [person]
      // Who helped here before, and taught what came, helps again.
      return was ? [was.duty === 'assistant' ? { ...person, duty: was.duty } : person] : []
    }),
  )
  await setMerged(database, id, before.status, null)
  await forgetMerge(database, id)
  await forgetDecision(database, id, 'status')
  if ((await mergedInto(database, into)).length > 0) return
  await forgetDecision(database, into, 'class sections')
  await forgetDecision(database, into, 'instructors')
  await forgetDecision(database, into, 'duties')
}

/** Into which course a course was merged, and how both stood before; null when it was not. */
export const findMerge = async (
  database: Database,
  id: number,
): Promise<{ into: number; before: BeforeMerge } | null> => {
  const row = await firstRow<{ into_id: number; before_merge: string }>(
    database,
    `SELECT into_id, before_merge
     FROM merges
     WHERE course_id = ?`,
    [id],
  )
  return row && { into: row.into_id, before: BeforeMerge.parse(JSON.parse(row.before_merge)) }
}

/** Courses that were merged into a course. */
export const mergedInto = async (database: Database, into: number): Promise<number[]> =>
  (
    await rowsOf<{ course_id: number }>(
      database,
      `SELECT course_id
       FROM merges
       WHERE into_id = ?
       ORDER BY course_id`,
      [into],
    )
  ).map((row) => row.course_id)

const recordMerge = (
  database: Database,
  id: number,
  into: number,
  before: BeforeMerge,
  who: string,
) =>
  change(
    database,
    `INSERT INTO merges (course_id, into_id, before_merge, merged_by, merged_at)
     VALUES (?, ?, ?, ?, ${institutionNow})`,
    [id, into, JSON.stringify(before), who],
  )
const forgetMerge = (database: Database, id: number) =>
  change(
    database,
    `DELETE FROM merges
     WHERE course_id = ?`,
    [id],
  )
const setMerged = (database: Database, id: number, status: string, into: number | null) =>
  change(
    database,
    `UPDATE courses
     SET status = ?, merged_into = ?
     WHERE id = ?`,
    [status, into, id],
  )
