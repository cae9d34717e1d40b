import {
  everyCourseItem,
  everyModule,
  withRecordedIdentity,
  type Course,
  type Facts,
} from '../course/index.ts'
import { success, type Result } from '../document/index.ts'
import { expandCourse } from '../expand/index.ts'
import { deployInto, identityOf } from '../plan/index.ts'
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
  const { course, base } = deployInto(
    filledIn(expected.value),
    shell(facts),
    {
      newId: (kind) => `${kind}-${++next}`,
      urlOf: (id) => `/courses/first/${id}`,
      rewriteHtml: (html) => html,
    },
    onDate,
  )
  const opened = structuredClone(withRecordedIdentity(course, identityOf(base)))
  for (const module of everyModule(opened.modules)) if (!module.staffOnly) module.published = true
  for (const { item } of everyCourseItem(opened)) if (!item.staffOnly) item.published = true
  return success(opened)
}
