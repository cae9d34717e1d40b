import type { Schedule } from '@wickerframe/contract'
import { change, firstRow, institutionNow, rowsOf, type Database } from '@wickerframe/storage'
import { instantOfRow, rowOfInstant } from '../moment.ts'

/** The courses a schedule is about, as a condition on both. */
const isOf = `courses.status = 'teaching'
  AND (schedules.term_code IS NULL OR schedules.term_code = courses.term_code)
  AND (schedules.department IS NULL OR schedules.department = courses.department)`

export const listSchedules = async (database: Database): Promise<Schedule[]> =>
  (
    await rowsOf<{
      id: number
      pattern: string
      timeZone: string
      code: string | null
      title: string | null
      department: string | null
      paused: number
      by: string
      courses: number
      nextAt: string | null
      lastAt: string | null
      lastRun: number | null
      lastSaid: string
    }>(
      database,
      `SELECT schedules.id, schedules.pattern, schedules.time_zone AS timeZone, terms.code,
         terms.title, schedules.department, schedules.paused,
         COALESCE(people.name, schedules.made_by) AS \`by\`,
         (SELECT COUNT(*) FROM courses WHERE ${isOf}) AS courses, schedules.next_at AS nextAt,
         schedules.last_at AS lastAt, schedules.last_run AS lastRun, schedules.last_said AS lastSaid
       FROM schedules
       LEFT JOIN terms ON terms.code = schedules.term_code
       LEFT JOIN people ON people.email = schedules.made_by
       ORDER BY schedules.id`,
    )
  ).map(({ code, title, paused, nextAt, lastAt, ...row }) => ({
    ...row,
    courses: Number(row.courses),
    term: code === null ? null : { code, title: title ?? code },
    paused: paused === 1,
    nextAt: nextAt === null ? null : instantOfRow(nextAt),
    lastAt: lastAt === null ? null : instantOfRow(lastAt),
  }))

export const addSchedule = async (
  database: Database,
  schedule: {
    pattern: string
    timeZone: string
    term: string | null
    department: string | null
    nextAt: string | null
  },
  by: string,
): Promise<number> =>
  (
    await change(
      database,
      `INSERT INTO schedules (term_code, department, pattern, time_zone, made_by, made_at, next_at)
       VALUES (?, ?, ?, ?, ?, ${institutionNow}, ?)`,
      [
        schedule.term,
        schedule.department,
        schedule.pattern,
        schedule.timeZone,
        by,
        schedule.nextAt === null ? null : rowOfInstant(schedule.nextAt),
      ],
    )
  ).id

/** A schedule as far as it tells when and about whom it is. */
export interface StoredSchedule {
  id: number
  pattern: string
  timeZone: string
  department: string | null
  lastRun: number | null
}
const storedColumns = 'id, pattern, time_zone AS timeZone, department, last_run AS lastRun'

export const findSchedule = (database: Database, id: number): Promise<StoredSchedule | null> =>
  firstRow<StoredSchedule>(
    database,
    `SELECT ${storedColumns}
     FROM schedules
     WHERE id = ?`,
    [id],
  )

/** A schedule whose time has come, locked: of several workers that look at once, one gets it. */
export const lockDue = (database: Database, now: string): Promise<StoredSchedule | null> =>
  firstRow<StoredSchedule>(
    database,
    `SELECT ${storedColumns}
     FROM schedules
     WHERE NOT paused AND next_at <= ?
     ORDER BY next_at, id
     LIMIT 1
     FOR UPDATE SKIP LOCKED`,
    [rowOfInstant(now)],
  )

export const coursesOfSchedule = async (database: Database, id: number): Promise<number[]> =>
  (
    await rowsOf<{ id: number }>(
      database,
      `SELECT courses.id
       FROM schedules
       JOIN courses ON ${isOf}
       WHERE schedules.id = ?
       ORDER BY courses.id`,
      [id],
    )
  ).map((row) => row.id)

/** Whether a run is over, or was forgotten. */
export const isOver = async (database: Database, run: number | null): Promise<boolean> =>
  run === null ||
  (await firstRow(
    database,
    `SELECT id
     FROM runs
     WHERE id = ? AND state IN ('running', 'paused')`,
    [run],
  )) === null

/** Keeps what came of a schedule, and when its time comes next. @param run what was begun; null: nothing, as said */
export const moveOn = async (
  database: Database,
  id: number,
  nextAt: string | null,
  { run, said }: { run: number | null; said: string },
): Promise<void> => {
  await change(
    database,
    `UPDATE schedules
     SET next_at = ?, last_at = ${institutionNow}, last_run = COALESCE(?, last_run), last_said = ?
     WHERE id = ?`,
    [nextAt === null ? null : rowOfInstant(nextAt), run, said, id],
  )
}

export const setPaused = async (
  database: Database,
  id: number,
  paused: boolean,
  nextAt: string | null,
): Promise<void> => {
  await change(
    database,
    `UPDATE schedules
     SET paused = ?, next_at = ?
     WHERE id = ?`,
    [paused, nextAt === null ? null : rowOfInstant(nextAt), id],
  )
}

export const removeSchedule = async (database: Database, id: number): Promise<void> => {
  await change(
    database,
    `DELETE FROM schedules
     WHERE id = ?`,
    [id],
  )
}
