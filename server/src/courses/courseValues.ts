import type { CourseValuesRow } from '@wickerframe/interchange'
import { change, rowsOf, type Database } from '@wickerframe/storage'
import { CourseCalendar } from '@wickerframe/contract'
import { peopleByCourse, replacePeople } from './coursePeople.ts'

/** What is kept of a course beside its roster. */
export interface KeptValues {
  topics: Record<string, string>
  calendar: CourseCalendar
  room: string | null
}

export const findValues = async (database: Database, id: number): Promise<KeptValues | null> => {
  const row = (
    await rowsOf<{ topics: string; calendar: string | null; room: string | null }>(
      database,
      `SELECT topics, calendar, room
       FROM courses
       WHERE id = ?
       FOR UPDATE`,
      [id],
    )
  )[0]
  return row
    ? {
        topics: JSON.parse(row.topics) as Record<string, string>,
        calendar: CourseCalendar.parse(JSON.parse(row.calendar ?? '{}')),
        room: row.room,
      }
    : null
}

/** The values of a course with what a row says laid over them. */
export const withRow = (kept: KeptValues, row: CourseValuesRow): KeptValues => ({
  topics: { ...kept.topics, ...row.topics },
  calendar: {
    ...kept.calendar,
    ...(row.meetingDays ? { meetingDays: row.meetingDays } : {}),
    ...(row.units.length > 0 ? { units: row.units } : {}),
  },
  room: row.room ?? kept.room,
})

export const storeValues = async (
  database: Database,
  id: number,
  { topics, calendar, room }: KeptValues,
  instructor: CourseValuesRow['instructor'],
): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     SET topics = ?, calendar = ?, room = ?
     WHERE id = ?`,
    [JSON.stringify(topics), JSON.stringify(calendar), room, id],
  )
  if (!instructor) return
  const people = (await peopleByCourse(database, [id])).get(id) ?? []
  await replacePeople(database, id, [
    { ...instructor, duty: 'owner' },
    ...people.filter(({ email, duty }) => duty === 'assistant' && email !== instructor.email),
  ])
}
