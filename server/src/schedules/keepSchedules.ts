import { inTransaction, type Database } from '@wickerframe/storage'
import type { Pool } from 'mysql2/promise'
import { createRunIn } from '../runs/newRun.ts'
import { coursesOfSchedule, isOver, lockDue, moveOn, type StoredSchedule } from './schedules.ts'
import { nextTime } from './times.ts'

/** Who begins the runs of schedules. */
const scheduleItself = 'the schedule'
const mostAtOnce = 20

/**
 * Begins what schedules ask for whose time has come. However many times were missed while nothing worked, it is begun once and
 * goes on with the next time from now; while the run before is at work nothing is begun beside it.
 * @param now by the institution's clock, ISO 8601 in UTC
 */
export const keepSchedules = async (pool: Pool, now: string): Promise<void> => {
  for (let i = 0; i < mostAtOnce; i++)
    if (!(await inTransaction(pool, (database) => keepOne(database, now)))) return
}

/** False when none is due. */
const keepOne = async (database: Database, now: string): Promise<boolean> => {
  const due = await lockDue(database, now)
  if (!due) return false
  await moveOn(
    database,
    due.id,
    nextTime(due.pattern, due.timeZone, now),
    await begin(database, due),
  )
  return true
}

const begin = async (
  database: Database,
  { id, lastRun }: StoredSchedule,
): Promise<{ run: number | null; said: string }> => {
  if (!(await isOver(database, lastRun)))
    return { run: null, said: 'the run before was still at work, so none was begun' }
  const courses = await coursesOfSchedule(database, id)
  if (courses.length === 0) return { run: null, said: 'there was no course to read' }
  const run = await createRunIn(database, {
    kind: 'check',
    title: `${courses.length} ${courses.length === 1 ? 'course' : 'courses'} by schedule`,
    by: scheduleItself,
    asOf: null,
    templateId: null,
    version: null,
    tasks: courses.map((courseId) => ({ courseId })),
  })
  return { run, said: '' }
}
