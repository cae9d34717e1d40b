import type { CourseSummary, NotReadyLine, todayRoutes } from '@wickerframe/contract'
import { addDays, byWhen, grouped, instructionalWeeks, type OpenMust } from '@wickerframe/core'
import { actionsOver, checkedCourses, courseLine } from '../conformance/checkedCourses.ts'
import type { StoredCourse } from '../courses/courses.ts'
import { pendingFollowUps } from '../followUps/followUps.ts'
import type { HandlersOf } from '../http/handler.ts'
import { HttpProblem } from '../http/problem.ts'
import { listRuns } from '../runs/runs.ts'
import { listTerms } from '../terms/terms.ts'
import { countWideEnds, listWaiting } from './waiting.ts'

const mostLines = 12
/** What falls due in so many days is told. */
const daysTold = 7

const firstOf = <Line>(lines: readonly Line[]): { count: number; lines: Line[] } => ({
  count: lines.length,
  lines: lines.slice(0, mostLines),
})

/** What somebody of a course is called; their e-mail, where the course does not know them. */
const nameIn = ({ instructors, assistants }: CourseSummary, email: string): string =>
  [...instructors, ...assistants].find((person) => person.email === email)?.name ?? email

/** A course that is not ready: what students meet first, when, and what can be done about it; null for one that is. */
const notReady = (
  { summary, facts }: StoredCourse,
  musts: readonly OpenMust[],
  raised: ReadonlySet<string> | undefined,
  today: string,
): NotReadyLine | null => {
  if (musts.length === 0) return null
  const weeks = instructionalWeeks({
    term: facts.term,
    nextTerm: facts.nextTerm,
    session: facts.session,
    count: facts.weeks,
  })
  const [first] = musts
    .map((must) => ({ message: must.message, by: byWhen(must, weeks, today) }))
    .sort((a, b) => ((a.by ?? '') < (b.by ?? '') ? -1 : (a.by ?? '') > (b.by ?? '') ? 1 : 0))
  if (!first) return null
  const isMendable = ({ places }: OpenMust) => places.some(({ byMachine }) => byMachine)
  return {
    ...courseLine(summary),
    openMusts: musts.length,
    first: first.message,
    by: first.by,
    mends: musts.filter(isMendable).length,
    toRaise: musts.filter(
      (must) =>
        must.mender === 'instructor' &&
        !isMendable(must) &&
        must.places.some(({ fingerprint }) => !raised?.has(fingerprint)),
    ).length,
  }
}

const sooner = (a: NotReadyLine, b: NotReadyLine): number =>
  (a.by ?? '') < (b.by ?? '') ? -1 : (a.by ?? '') > (b.by ?? '') ? 1 : b.openMusts - a.openMusts

export const todayHandlers: HandlersOf<typeof todayRoutes> = {
  today: async (handling) => {
    const { pool, today, person } = handling
    const { courses, checks } = await checkedCourses(handling)
    const terms = await listTerms(pool)
    const term =
      terms.find((term) => term.firstDay <= today && today <= term.lastDay) ??
      terms.find((term) => term.firstDay > today) ??
      terms.at(-1)
    if (!term) throw new HttpProblem(409, 'no-term', 'there is no term yet; add one first')
    const weeks = instructionalWeeks({ term })
    const ids = courses.map(({ summary }) => summary.id)
    const byId = new Map(courses.map(({ summary }) => [summary.id, summary]))
    const pending = await pendingFollowUps(pool, ids)
    const bySection = grouped(
      courses.flatMap(({ summary }) =>
        summary.classSections.map((section) => ({ summary, section })),
      ),
      ({ summary, section }) => `${summary.code}, class section ${section}`,
    )
    const noTemplate = courses.filter(({ summary }) => summary.template === null)
    return {
      today,
      term,
      week: weeks.find((week) => week.first <= today && today <= week.last)?.number ?? null,
      weeks: weeks.length,
      notReady: firstOf(
        courses
          .flatMap((stored) => {
            const { id } = stored.summary
            const musts = checks.get(id)?.openMusts ?? []
            return notReady(stored, musts, pending.get(id), today) ?? []
          })
          .sort(sooner),
      ),
      waiting: firstOf(
        (await listWaiting(pool, ids, today)).flatMap(({ courseId, ...waiting }) => {
          const summary = byId.get(courseId)
          return summary
            ? [{ ...courseLine(summary), ...waiting, who: nameIn(summary, waiting.who) }]
            : []
        }),
      ),
      wideWaiversEnding: await countWideEnds(pool, today),
      comingDue: firstOf(
        courses
          .flatMap(({ summary }) => {
            const coming = (checks.get(summary.id)?.outlook.comingDue ?? []).filter(
              ({ on }) => on > today && on <= addDays(today, daysTold),
            )
            const [first] = coming
            const musts = coming.reduce((total, { count }) => total + count, 0)
            return first ? [{ ...courseLine(summary), musts, on: first.on }] : []
          })
          .sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : b.musts - a.musts)),
      ),
      notBegun: firstOf(
        courses.flatMap(({ summary }) =>
          summary.state === 'deployed' && checks.get(summary.id)?.outlook.begun === false
            ? [courseLine(summary)]
            : [],
        ),
      ),
      noTemplate: {
        ...firstOf(
          noTemplate.map(({ summary }) => ({ ...courseLine(summary), state: summary.state })),
        ),
        all: noTemplate.map(({ summary }) => summary.id),
      },
      duplicates: firstOf(
        [...bySection]
          .filter(([, list]) => list.length > 1)
          .map(([classSection, list]) => ({
            classSection,
            courses: list.map(({ summary }) => courseLine(summary)),
          })),
      ),
      failedRollouts: (await listRuns(pool, ['rollout'], person)).filter(
        (run) => run.counts.failed > 0,
      ),
      mendFirst: actionsOver(courses, checks, 4),
      checkedAsOf:
        courses.find(({ summary }) => summary.check !== null)?.summary.check?.asOf ?? null,
    }
  },
}
