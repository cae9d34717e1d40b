import {
  applyChanges, baseAfter, expandCourse, identityOf, planDeployment, withRecordedIdentity, type Course, type Facts, type Template,
} from '@wickerframe/core'
import { stories } from './instructorEdits.ts'
import { seededRandom } from './random.ts'

/** An empty teaching course, as the platform makes it. */
export const shell = (id: string, name: string): Course => ({
  schema: 'wickerframe.course/1', id, name, label: '', status: 'teaching', published: false, revision: '1', readAt: '2026-09-16T11:40:00Z',
  timeZone: 'America/Halifax', opensAt: null, closesAt: null, homePage: null, navigation: [], modules: [], stray: [],
})

/**
 * A course as deployment makes it and an instructor edits it, worked out in memory with the platform's own rules but
 * without a platform: for examples, benchmarks and tests.
 * @param rewriteHtml how the platform rewrites HTML; as it is, without it
 */
export const makeCourse = (id: string, template: Template, facts: Facts, story: string, seed: number, rewriteHtml: (html: string) => string = (html) => html): Course => {
  const expansion = expandCourse({ template, facts, mintFrom: id })
  if (!expansion.ok) throw new Error(JSON.stringify(expansion.problems))
  const empty = shell(id, `${facts.code} new course`)
  const plan = planDeployment({ expected: expansion.value, course: empty, base: [], onDate: '2026-08-20' })
  if (plan.state !== 'ready') throw new Error(`nothing to deploy for ${id}`)
  let next = 0
  const hand = { newId: (kind: string) => `${kind[0]}-${id}-${++next}`, urlOf: (one: string) => `/courses/${id}/${one}`, rewriteHtml }
  const deployed = applyChanges(empty, plan.changes, hand)
  if (!deployed.ok) throw new Error(deployed.problems.message)
  const random = seededRandom(seed)
  let course = deployed.value.course
  for (const edit of stories[story] ?? []) {
    const edited = applyChanges(course, edit(course, random), hand)
    if (!edited.ok) throw new Error(`${id}, ${story}: ${edited.problems.message}`)
    course = edited.value.course
  }
  return withRecordedIdentity(course, identityOf(baseAfter([], plan.creates, deployed.value.ids)))
}
