import type { CourseListing } from '@wickerframe/contract'
import type { z } from 'zod'
import type { Answer, Connector } from './client.ts'

/** Lists are asked for in so many parts at most: a platform whose list never ends is not believed. */
const mostParts = 2000

/** Every course of the platform, by its id, as its list of changes has it from the beginning. */
export const everyCourse = async (
  connector: Pick<Connector, 'list'>,
): Promise<Answer<Map<string, z.output<typeof CourseListing>>>> => {
  const courses = new Map<string, z.output<typeof CourseListing>>()
  let after = 0
  for (let part = 0; part < mostParts; part++) {
    const answer = await connector.list(after)
    if (answer.state !== 'answered') return answer
    const { courses: more, cursor } = answer.value
    for (const course of more) courses.set(course.id, course)
    if (more.length === 0 || cursor === after) return { state: 'answered', value: courses }
    after = cursor
  }
  return { state: 'unknown', detail: `the platform’s list does not end after ${mostParts} parts` }
}
