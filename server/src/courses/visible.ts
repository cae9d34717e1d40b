import { may } from '@wickerframe/contract'
import type { Value } from '@wickerframe/storage'
import type { Person } from '../people/people.ts'

/** Templates that a contributor was let into, and those built on them, however far. */
const templatesOfContributor = `WITH RECURSIVE mine AS (
    SELECT templates.id, templates.template_key
    FROM template_contributors
    JOIN templates ON templates.id = template_contributors.template_id
    WHERE template_contributors.person_id = ?
    UNION
    SELECT layers.id, layers.template_key
    FROM templates AS layers
    JOIN mine ON JSON_VALUE(layers.draft, '$.extends.template') = mine.template_key
  )
  SELECT id
  FROM mine`

/**
 * Whether somebody may see a course, as a condition on an SQL expression that holds its id: all of them, those under
 * templates they contribute to, or those they teach.
 */
export const visibleTo = (
  person: Person | 'system',
  courseId: string,
): { where: string; values: Value[] } => {
  if (person === 'system' || may(person, 'see every course')) return { where: '1 = 1', values: [] }
  if (may(person, 'see courses of layers'))
    return {
      where: `${courseId} IN (SELECT under.id FROM courses AS under WHERE under.template_id IN (${templatesOfContributor}))`,
      values: [person.id],
    }
  return {
    where: `EXISTS (SELECT 1 FROM course_instructors WHERE course_instructors.course_id = ${courseId} AND course_instructors.email = ?)`,
    values: [person.email],
  }
}
