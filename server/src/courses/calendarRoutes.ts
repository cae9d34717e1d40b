import { expandCourse, instructionalWeeks, weeksOfUnit } from '@wickerframe/core'
import { courseCalendar } from '@wickerframe/interchange'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { storeCourseCalendar, withCalendar } from './courses.ts'
import { findVersionById } from '../templates/templates.ts'
import { findTerm } from '../terms/terms.ts'
import { calendarOut } from '../http/calendarOut.ts'
import { HttpProblem } from '../http/problem.ts'
import { courseIn } from './routes.ts'
import type { calendarRoutes } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'

export const calendarHandlers: HandlersOf<typeof calendarRoutes> = {
  courseCalendar: async (handling) => {
    const stored = await courseIn(handling)
    const version =
      stored.templateId !== null && stored.version !== null
        ? await findVersionById(handling.pool, stored.templateId, stored.version)
        : null
    const expansion = version
      ? expandCourse({
          template: version.document,
          facts: stored.facts,
          mintFrom: stored.summary.platformId,
        })
      : null
    if (!expansion?.ok)
      throw new HttpProblem(
        409,
        'no-schedule',
        'the course is under no template yet, so there is no schedule to give',
      )
    return calendarOut(handling, stored.summary.platformId, (stampedAt) =>
      courseCalendar(expansion.value, stored.summary.platformId, stampedAt),
    )
  },
  /** Decides on meeting days, units and a second term, for designers and the course's own instructors. */
  decideCalendar: async (handling) => {
    const { pool, person, body } = handling
    const stored = await courseIn(handling)
    const calendar = body
    const nextTerm =
      calendar.nextTerm === null
        ? undefined
        : ((await findTerm(pool, calendar.nextTerm)) ?? undefined)
    const refuse = (path: string, found: string, expected: string) =>
      new HttpProblem(400, 'unusable-input', `at ${path}: found ${found}; expected ${expected}`, {
        problems: [{ code: 'not-allowed', path, found, expected }],
      })
    const { term } = stored.facts
    if (calendar.nextTerm !== null && !nextTerm)
      throw refuse('/nextTerm', calendar.nextTerm, 'the code of a term')
    if (nextTerm && nextTerm.firstDay <= term.lastDay)
      throw refuse(
        '/nextTerm',
        nextTerm.title,
        `a term that begins after ${term.title}, which ends on ${term.lastDay}`,
      )
    const facts = withCalendar(stored.facts, calendar, nextTerm)
    const weeks = instructionalWeeks({ term, nextTerm, session: facts.session, count: facts.weeks })
    calendar.units.forEach((unit, i) => {
      if (weeksOfUnit(unit, weeks).length === 0)
        throw refuse(
          `/units/${i}`,
          JSON.stringify(unit),
          `weeks of the course, ${weeks[0]?.number ?? 1} to ${weeks.at(-1)?.number ?? 0}, or days of them`,
        )
      if (calendar.units.some((other, j) => j < i && other.number === unit.number))
        throw refuse(
          `/units/${i}/number`,
          String(unit.number),
          'a number that no unit before it has',
        )
    })
    await inTransaction(pool, async (database) => {
      await storeCourseCalendar(database, stored.summary.id, calendar)
      await recordAudit(database, {
        who: person.email,
        what: 'calendar of the course decided',
        subject: `course ${stored.summary.id}`,
        from: {
          meetingDays: stored.facts.meetingDays,
          units: stored.facts.units,
          nextTerm: stored.facts.nextTerm?.code,
        },
        to: calendar,
      })
    })
    return { facts }
  },
}
