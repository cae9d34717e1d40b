import { sumImpacts } from '@wickerframe/core'
import type { impactRoutes } from '@wickerframe/contract'
import { inTransaction } from '@wickerframe/storage'
import { namedCourse } from '../conformance/checkedCourses.ts'
import { findCourses, listCourses } from '../courses/courses.ts'
import { visibleAmong } from '../courses/visible.ts'
import type { HandlersOf } from '../http/handler.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { createRunIn } from '../runs/newRun.ts'
import { commandRunIn } from '../runs/commands.ts'
import { runProgress } from '../runs/runs.ts'
import { findDraftToRelease } from '../templates/templates.ts'
import {
  findLastHeld,
  forgetHeldBefore,
  keepHeldDraft,
  listImpacts,
  openRunsOf,
} from './impacts.ts'

const mostNamed = 12

export const impactHandlers: HandlersOf<typeof impactRoutes> = {
  holdAgainstCourses: async ({ pool, person, today, at, body: { revision } }) => {
    const draft = await findDraftToRelease(pool, at.template)
    if (!draft) throw notFound('template')
    if (draft.revision !== revision)
      throw new HttpProblem(
        409,
        'stale',
        'the draft was changed since you looked at it; look again before you hold it against courses',
      )
    const courses = (await listCourses(pool, person, today)).filter(
      ({ templateId, summary }) => templateId === draft.templateId && summary.status === 'teaching',
    )
    if (courses.length === 0)
      throw new HttpProblem(
        409,
        'no-courses',
        'no course that teaches is under this template yet, so there is nothing to hold the draft against',
      )
    const run = await inTransaction(pool, async (database) => {
      // One at a time for each template: what an older draft would change is no longer asked.
      for (const { id } of await openRunsOf(database, draft.templateId))
        await commandRunIn(database, id, 'cancel', person.email)
      const id = await createRunIn(database, {
        kind: 'impact',
        title: `The draft of ${draft.template.title}, held against ${courses.length} ${courses.length === 1 ? 'course' : 'courses'}`,
        by: person.email,
        asOf: today,
        templateId: null,
        version: null,
        tasks: scattered(courses.map(({ summary }) => summary.id)).map((courseId) => ({
          courseId,
        })),
      })
      await keepHeldDraft(database, id, draft)
      await forgetHeldBefore(database, draft.templateId, id)
      return id
    })
    return { run }
  },
  readImpact: async ({ pool, person, at }) => {
    const held = await findLastHeld(pool, at.template)
    if (!held) return null
    const progress = await runProgress(pool, { id: held.run, state: held.state })
    const { becomeReady, stopBeingReady, doNotFit, ...sum } = sumImpacts(
      await listImpacts(pool, held.run),
    )
    const lists = [becomeReady, stopBeingReady, doNotFit.map(({ course }) => course)]
    const toName = [...new Set(lists.flatMap((ids) => ids.slice(0, mostNamed)))]
    // Whoever looks after some departments reads how many there are, and the names of their own.
    const byId = new Map(
      (await findCourses(pool, await visibleAmong(pool, person, toName))).map(({ summary }) => [
        summary.id,
        summary,
      ]),
    )
    const named = (ids: readonly number[]) => ({
      count: ids.length,
      courses: ids.slice(0, mostNamed).flatMap((id) => {
        const summary = byId.get(id)
        return summary ? [namedCourse(summary)] : []
      }),
    })
    return {
      ...held,
      ...sum,
      ...progress,
      becomeReady: named(becomeReady),
      stopBeingReady: named(stopBeingReady),
      doNotFit: {
        ...named(doNotFit.map(({ course }) => course)),
        reason: doNotFit[0]?.reason ?? '',
      },
    }
  },
}

/**
 * The courses in an order that is the same each time and has nothing to do with department or code, so that the first figures
 * speak for all of them (multiplicative hashing, Knuth, The Art of Computer Programming, volume 3, 6.4; from memory).
 */
const scattered = (ids: readonly number[]): number[] =>
  ids.toSorted((a, b) => ((a * 2654435761) % 2 ** 32) - ((b * 2654435761) % 2 ** 32) || a - b)
