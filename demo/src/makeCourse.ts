import {
  applyChanges,
  deployInto,
  expandCourse,
  identityOf,
  withRecordedIdentity,
  type Base,
  type Course,
  type Facts,
  type KeptBodies,
  type Template,
} from '@wickerframe/core'
import { stories } from './instructorEdits.ts'
import { seededRandom } from './random.ts'

/** An empty teaching course, as the platform makes it. */
export const shell = (id: string, name: string): Course => ({
  schema: 'wickerframe.course/2',
  id,
  name,
  label: '',
  status: 'teaching',
  published: false,
  revision: '1',
  readAt: '2026-09-16T11:40:00Z',
  timeZone: 'America/Halifax',
  opensAt: null,
  closesAt: null,
  homePage: null,
  navigation: [],
  modules: [],
  stray: [],
})

/**
 * A course as deployment makes it and an instructor edits it, worked out in memory with the platform's own rules but
 * without a platform: for examples, benchmarks and tests.
 * @param rewriteHtml how the platform rewrites HTML; as it is, without it
 */
export const makeDeployedCourse = (
  id: string,
  template: Template,
  facts: Facts,
  story: string,
  seed: number,
  rewriteHtml: (html: string) => string = (html) => html,
): { course: Course; base: Base; bodies: KeptBodies } => {
  const expansion = expandCourse({ template, facts, mintFrom: id })
  if (!expansion.ok) throw new Error(JSON.stringify(expansion.problems))
  const empty = shell(id, `${facts.code} new course`)
  let next = 0
  const hand = {
    newId: (kind: string) => `${kind[0]}-${id}-${++next}`,
    urlOf: (item: string) => `/courses/${id}/${item}`,
    rewriteHtml,
  }
  const deployed = deployInto(expansion.value, empty, hand, '2026-08-20')
  const random = seededRandom(seed)
  let { course } = deployed
  for (const edit of stories[story] ?? []) {
    const edited = applyChanges(course, edit(course, random), hand)
    if (!edited.ok) throw new Error(`${id}, ${story}: ${edited.problems.message}`)
    course = edited.value.course
  }
  return {
    course: withRecordedIdentity(course, identityOf(deployed.base)),
    base: deployed.base,
    bodies: deployed.bodies,
  }
}

/** The same, without what was deployed. */
export const makeCourse = (...of: Parameters<typeof makeDeployedCourse>): Course =>
  makeDeployedCourse(...of).course
