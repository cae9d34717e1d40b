import type { Finding } from '@wickerframe/core'
import type { Database } from '@wickerframe/storage'
import type { StoredCourse } from '../courses/courses.ts'
import { tellOfCourse } from '../messages/messages.ts'
import { raiseFollowUps, type RaisedPlace } from './followUps.ts'

/** With whom a finding is raised: whose move it is, or whoever teaches the course; null where nobody does. */
export const ownerOf = (finding: Finding, { facts }: StoredCourse): string | null =>
  finding.owner ?? facts.owner ?? facts.instructors[0]?.email ?? null

const mostTold = 12

/** Raises places of findings of a course, and tells each person with whom once of all that is theirs. */
export const raiseAndTell = async (
  database: Database,
  { summary: { id, code, title } }: StoredCourse,
  raised: readonly RaisedPlace[],
): Promise<void> => {
  await raiseFollowUps(database, id, raised)
  const byOwner = new Map<string, RaisedPlace[]>()
  for (const place of raised) byOwner.set(place.owner, [...(byOwner.get(place.owner) ?? []), place])
  for (const [owner, places] of byOwner) {
    const theirs = places.filter(({ by }) => by !== owner)
    const [first] = theirs
    if (!first) continue
    const messages = [...new Set(theirs.map(({ message }) => message))]
    await tellOfCourse(database, owner, id, {
      subject: `To mend in ${code} ${title}: ${messages.length === 1 ? 'one thing was' : `${messages.length} things were`} raised with you`,
      body: [
        ...(first.note === '' ? [] : [first.note]),
        ...messages.slice(0, mostTold),
        ...(messages.length > mostTold ? [`And ${messages.length - mostTold} more.`] : []),
      ].join('\n'),
    })
  }
}
