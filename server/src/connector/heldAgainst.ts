import { everyCourseItem, everyModule, type Change, type Course } from '@wickerframe/core'
import type { ChangeSet, ChangeSetAnswer, CourseList, Enrolments } from '@wickerframe/contract'
import type { z } from 'zod'

// What a platform answers is held against what it was asked. Each function gives what is wrong in words, or null.

const firstTwice = (ids: readonly string[]): string | undefined => {
  const seen = new Set<string>()
  return ids.find((id) => seen.size === seen.add(id).size)
}

/** A course that was asked for by its id, with ids that each name one thing. */
export const courseAsAsked = (course: Course, id: string): string | null => {
  if (course.id !== id) return `course ${course.id} was sent where ${id} was asked for`
  const twice =
    firstTwice(everyModule(course.modules).map((module) => module.id)) ??
    firstTwice(everyCourseItem(course).map(({ item }) => item.id))
  return twice === undefined ? null : `two parts of course ${id} were sent under the id ${twice}`
}

/** What stands in a course after a change set: that course, at that revision, with an id for each thing that was made. */
export const setAsAsked = (answer: ChangeSetAnswer, id: string, set: ChangeSet): string | null => {
  const wrong = courseAsAsked(answer.course, id)
  if (wrong !== null) return wrong
  if (answer.course.revision !== answer.revision)
    return `revision ${answer.revision} was told, and the course sent with it is at ${answer.course.revision}`
  const made = set.changes.flatMap((change: Change) =>
    'clientId' in change && change.clientId !== undefined ? [change.clientId] : [],
  )
  const without = made.find((clientId) => answer.ids[clientId] === undefined)
  if (without !== undefined) return `no id was told for ${without}, which was to be made`
  const twice = firstTwice(Object.values(answer.ids))
  return twice === undefined ? null : `one id, ${twice}, was told for two things that were made`
}

/** Courses of a list, each once, and a cursor that does not go back. */
export const listAsAsked = (list: CourseList, after: number): string | null => {
  const twice = firstTwice(list.courses.map((course) => course.id))
  if (twice !== undefined) return `course ${twice} stands twice in the list`
  return list.cursor < after ? `the list goes back to ${list.cursor} from ${after}` : null
}

/** Everybody who was to be enrolled. */
export const enrolledAsAsked = (
  { people }: z.output<typeof Enrolments>,
  asked: readonly { email: string }[],
): string | null => {
  const enrolled = new Set(people.map((person) => person.email.toLowerCase()))
  const without = asked.find(({ email }) => !enrolled.has(email.toLowerCase()))
  return without === undefined ? null : `${without.email} is not among those enrolled`
}
