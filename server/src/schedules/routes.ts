import type { scheduleRoutes } from '@wickerframe/contract'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { mustLookAfter } from '../courses/departments.ts'
import { actingTo } from '../courses/visible.ts'
import type { HandlersOf, Situation } from '../http/handler.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { findTerm } from '../terms/terms.ts'
import {
  addSchedule,
  findSchedule,
  listSchedules,
  removeSchedule,
  setPaused,
  type StoredSchedule,
} from './schedules.ts'
import { nextTime, patternProblem } from './times.ts'

/** The schedule of the address, if it is theirs to change. */
const scheduleIn = async ({
  pool,
  person,
  at,
}: Situation & { at: { schedule: number } }): Promise<StoredSchedule> => {
  const schedule = await findSchedule(pool, at.schedule)
  if (!schedule) throw notFound('schedule')
  mustLookAfter(actingTo(person, 'check courses'), [schedule.department])
  return schedule
}

export const scheduleHandlers: HandlersOf<typeof scheduleRoutes> = {
  listSchedules: ({ pool }) => listSchedules(pool),
  addSchedule: async ({ pool, person, now, timeZone: ours, body }) => {
    const { pattern, term, department } = body
    mustLookAfter(actingTo(person, 'check courses'), [department])
    const ofTerm = term === null ? null : await findTerm(pool, term)
    if (term !== null && !ofTerm) throw notFound('term')
    const timeZone = ofTerm?.timeZone ?? ours
    const problem = patternProblem(pattern, timeZone, now)
    if (problem !== null)
      throw new HttpProblem(400, 'unusable-input', `at /pattern: found ${pattern}; ${problem}`)
    return inTransaction(pool, async (database) => {
      const nextAt = nextTime(pattern, timeZone, now)
      const id = await addSchedule(
        database,
        { pattern, timeZone, term, department, nextAt },
        person.email,
      )
      await recordAudit(database, {
        who: person.email,
        what: 'schedule added',
        subject: `schedule ${id}`,
        to: body,
      })
      return { id }
    })
  },
  pauseSchedule: async (handling) => {
    const { pool, person, now, body } = handling
    const { id, pattern, timeZone } = await scheduleIn(handling)
    return inTransaction(pool, async (database) => {
      await setPaused(database, id, body.paused, nextTime(pattern, timeZone, now))
      await recordAudit(database, {
        who: person.email,
        what: body.paused ? 'schedule paused' : 'schedule goes on',
        subject: `schedule ${id}`,
      })
      return {}
    })
  },
  removeSchedule: async (handling) => {
    const { pool, person } = handling
    const { id, pattern } = await scheduleIn(handling)
    return inTransaction(pool, async (database) => {
      await removeSchedule(database, id)
      await recordAudit(database, {
        who: person.email,
        what: 'schedule removed',
        subject: `schedule ${id}`,
        from: { pattern },
      })
      return {}
    })
  },
}
