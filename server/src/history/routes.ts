import type { historyRoutes } from '@wickerframe/contract'
import {
  addDays,
  daysToReady,
  editsByDay,
  instructionalWeeks,
  readinessByDay,
  grouped,
} from '@wickerframe/core'
import { listChecks } from '../checks/checkDigests.ts'
import { bandOfCourse } from '../conformance/bandOfCourse.ts'
import { courseLine } from '../conformance/checkedCourses.ts'
import { listCourses, type StoredCourse } from '../courses/courses.ts'
import { courseIn } from '../courses/routes.ts'
import type { HandlersOf } from '../http/handler.ts'
import { ruleUse } from './ruleUse.ts'
import { listEdits } from './courseEdits.ts'
import { listReadiness, listSpells } from './keptHistory.ts'

const mostSpells = 500
const mostNotBegun = 60
/** No history is drawn over more days than this: a term and what comes before it. */
const mostDays = 200

/** The day on which students begin with a course. */
const openingOf = ({ facts }: StoredCourse): string =>
  instructionalWeeks({
    term: facts.term,
    nextTerm: facts.nextTerm,
    session: facts.session,
    count: facts.weeks,
  })[0]?.first ?? facts.term.firstDay

export const historyHandlers: HandlersOf<typeof historyRoutes> = {
  ruleUse: async ({ pool, person, today }) => ruleUse(pool, person, today),
  collegeHistory: async ({ pool, person, today, query: { by } }) => {
    const [all, checks] = await Promise.all([
      listCourses(pool, person, today),
      listChecks(pool, today),
    ])
    const courses = all.filter(({ summary }) => summary.status === 'teaching')
    const ids = courses.map(({ summary }) => summary.id)
    const [changes, edits] = await Promise.all([listReadiness(pool, ids), listEdits(pool, ids)])
    const deployed = courses.filter(({ summary }) => summary.state === 'deployed')
    const notBegun = deployed.filter(
      ({ summary }) => checks.get(summary.id)?.outlook.begun === false,
    )
    const kept = courses.flatMap((stored) => {
      const of = changes.get(stored.summary.id)
      return of ? [{ stored, of }] : []
    })
    const earliest = addDays(today, 1 - mostDays)
    const first = kept.reduce<string>((soonest, { of }) => {
      const day = of[0]?.day ?? today
      return day < soonest ? day : soonest
    }, today)
    const from = first < earliest ? earliest : first
    const bands = grouped(kept, ({ stored }) => bandOfCourse(stored.summary, by))
    const toReady = kept
      .filter(({ stored }) => openingOf(stored) <= today)
      .map(({ stored, of }) => daysToReady(of, openingOf(stored)))
    const editsOf = (stored: StoredCourse) => edits.get(stored.summary.id) ?? []
    return {
      from,
      until: today,
      edits: editsByDay(edits.values(), from, today),
      deployed: deployed.length,
      notBegun: {
        count: notBegun.length,
        lines: notBegun.slice(0, mostNotBegun).map(({ summary }) => courseLine(summary)),
      },
      college: readinessByDay(
        kept.map(({ of }) => of),
        from,
        today,
      ),
      bands: [...bands]
        .sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true, sensitivity: 'base' }))
        .map(([title, of]) => ({
          title,
          courses: of.length,
          days: readinessByDay(
            of.map((one) => one.of),
            from,
            today,
          ),
          edits: of
            .flatMap(({ stored }) => editsOf(stored))
            .reduce((sum, { day, edits: count }) => sum + (day < from ? 0 : count), 0),
        })),
      daysToReady: toReady.flatMap((days) => days ?? []).sort((a, b) => a - b),
      neverReady: toReady.filter((days) => days === null).length,
    }
  },
  courseStanding: async (handling) => {
    const { pool } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const changes = (await listReadiness(pool, [id])).get(id) ?? []
    const opening = openingOf(stored)
    return {
      opening,
      changes,
      daysToReady: daysToReady(changes, opening),
      deployed: stored.summary.state === 'deployed',
      edits: (await listEdits(pool, [id])).get(id) ?? [],
      spells: await listSpells(pool, id, mostSpells),
    }
  },
}
