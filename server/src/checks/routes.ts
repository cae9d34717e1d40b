import type { checkRoutes } from '@wickerframe/contract'
import type { HandlersOf, Situation } from '../http/handler.ts'
import { digestOf } from '../digest.ts'
import { askedRun } from '../runs/askedRun.ts'
import { courseIn, coursesOf } from '../courses/routes.ts'
import { listCourses, type StoredCourse } from '../courses/courses.ts'
import { HttpProblem } from '../http/problem.ts'

const checkRun = async (
  handling: Situation,
  courses: readonly StoredCourse[],
  asOf: string,
): Promise<{ run: number }> => {
  if (courses.length === 0)
    throw new HttpProblem(
      409,
      'nothing-to-check',
      'there is no course to check; import a roster first',
    )
  return {
    run: await askedRun(handling, {
      kind: 'check',
      title: `${courses.length} ${courses.length === 1 ? 'course' : 'courses'} as of ${asOf}`,
      by: handling.person.email,
      question: digestOf({ asOf, courses: courses.map((stored) => stored.summary.id) }),
      asOf,
      templateId: null,
      version: null,
      tasks: courses.map((stored) => ({ courseId: stored.summary.id })),
    }),
  }
}

export const checkHandlers: HandlersOf<typeof checkRoutes> = {
  checkCourses: async (handling) => {
    const { today, pool, person, body } = handling
    const { courses, asOf = today } = body
    const chosen = courses
      ? await coursesOf(handling, courses)
      : (await listCourses(pool, person, today)).filter(
          (stored) => stored.summary.status === 'teaching',
        )
    return checkRun(handling, chosen, asOf)
  },
  checkCourse: async (handling) => {
    const { body } = handling
    const { asOf = handling.today } = body
    return checkRun(handling, [await courseIn(handling)], asOf)
  },
}
