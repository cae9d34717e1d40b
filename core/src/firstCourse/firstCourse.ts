import {
  everyCourseItem,
  everyModule,
  withRecordedIdentity,
  type Course,
  type Facts,
} from '../course/index.ts'
import { failure, success, type Result } from '../document/index.ts'
import { expandCourse } from '../expand/index.ts'
import type { ShownFile } from '../files/index.ts'
import { carryOut, emptyBase, identityOf, keptBodies, planDeployment } from '../plan/index.ts'
import type { Template } from '../template/index.ts'
import { filledIn } from './filledIn.ts'

const shell = (facts: Facts): Course => ({
  schema: 'wickerframe.course/2',
  id: 'first',
  name: 'First course',
  label: '',
  status: 'teaching',
  published: true,
  revision: '1',
  readAt: `${facts.term.firstDay}T00:00:00Z`,
  timeZone: facts.term.timeZone,
  opensAt: null,
  closesAt: null,
  homePage: null,
  navigation: [],
  modules: [],
  stray: [],
})

/**
 * The first course that a template would be deployed into: freshly, into a shell, and filled in perfectly; open, with all that is
 * for students.
 * @param onDate the house texts are those that are in force on this day, `YYYY-MM-DD`
 */
export const firstCourse = (template: Template, facts: Facts, onDate: string): Result<Course> => {
  const expected = expandCourse({ template, facts, mintFrom: 'first' })
  if (!expected.ok) return expected
  let next = 0
  const hand = {
    newId: (kind: string) => `${kind}-${++next}`,
    urlOf: (id: string) => `/courses/first/${id}`,
    urlOfFile: ({ name, content }: ShownFile) =>
      `/courses/first/files/${content}/${encodeURIComponent(name)}`,
    rewriteHtml: (html: string) => html,
  }
  const bodies = keptBodies()
  const before = shell(facts)
  const plan = planDeployment({
    expected: filledIn(expected.value),
    course: before,
    base: emptyBase(),
    bodies,
    onDate,
  })
  const done = carryOut(plan, before, emptyBase(), hand, bodies)
  if (!done.ok)
    return failure([
      {
        code: 'not-allowed',
        path: '',
        found: done.problems.message,
        expected: 'a template that can be deployed into a shell',
      },
    ])
  const { course, base } = done.value
  const opened = structuredClone(withRecordedIdentity(course, identityOf(base)))
  for (const module of everyModule(opened.modules)) if (!module.staffOnly) module.published = true
  for (const { item } of everyCourseItem(opened)) if (!item.staffOnly) item.published = true
  return success(opened)
}
