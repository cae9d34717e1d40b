import { grouped, type Finding } from '@wickerframe/core'
import type { Database } from '@wickerframe/storage'
import type { StoredCourse } from '../courses/courses.ts'
import { tellOfCourses, type ToTell } from '../messages/messages.ts'
import { raiseFollowUps, type RaisedPlace } from './followUps.ts'

/** With whom a finding is raised: whose move it is, or whoever teaches the course; null where nobody does. */
export const ownerOf = (finding: Finding, { facts }: StoredCourse): string | null =>
  finding.owner ?? facts.owner ?? facts.instructors[0]?.email ?? null

const mostTold = 12

/** What is raised in one course. */
export interface RaisedInCourse {
  stored: StoredCourse
  raised: readonly RaisedPlace[]
}

/** Raises places of findings of courses, and tells each person once for each course of all that is theirs. */
export const raiseAndTell = async (
  database: Database,
  all: readonly RaisedInCourse[],
): Promise<void> => {
  await raiseFollowUps(
    database,
    all.flatMap(({ raised }) => raised),
  )
  await tellOfCourses(
    database,
    all.flatMap(({ stored, raised }) =>
      [...grouped(raised, ({ owner }) => owner)].flatMap(([owner, places]) =>
        toTell(stored, owner, places),
      ),
    ),
  )
}

/** What somebody is told of places in a course that are raised with them; nothing of what they raise themselves. */
const toTell = (
  { summary: { id, code, title } }: StoredCourse,
  owner: string,
  places: readonly RaisedPlace[],
): ToTell[] => {
  const theirs = places.filter(({ by }) => by !== owner)
  const [first] = theirs
  if (!first) return []
  const messages = [...new Set(theirs.map(({ message }) => message))]
  return [
    {
      email: owner,
      courseId: id,
      subject: `To mend in ${code} ${title}: ${messages.length === 1 ? 'one thing was' : `${messages.length} things were`} raised with you`,
      body: [
        ...(first.note === '' ? [] : [first.note]),
        ...messages.slice(0, mostTold),
        ...(messages.length > mostTold ? [`And ${messages.length - mostTold} more.`] : []),
      ].join('\n'),
    },
  ]
}
