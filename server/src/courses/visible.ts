import {
  courseScopes,
  rolesThat,
  seesWholeCollege,
  type Capability,
  type CourseRole,
  type Role,
} from '@wickerframe/contract'
import { anyOf, firstRow, rowsOf, type Database, type Value } from '@wickerframe/storage'
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

interface Condition {
  where: string
  values: Value[]
}
type Scope = (typeof courseScopes)[Role]

/** The condition of each scope on an SQL expression that holds a course’s id. */
const conditions: Readonly<Record<Scope, (person: Person, courseId: string) => Condition>> = {
  college: () => ({ where: 'TRUE', values: [] }),
  departments: ({ departments }, courseId) => {
    if (departments.length === 0) return { where: 'TRUE', values: [] }
    const named = anyOf(departments)
    return {
      where: `${courseId} IN (SELECT theirs.id FROM courses AS theirs WHERE theirs.department IN ${named.sql})`,
      values: named.values,
    }
  },
  layers: ({ id }, courseId) => ({
    where: `${courseId} IN (SELECT under.id FROM courses AS under WHERE under.template_id IN (${templatesOfContributor}))`,
    values: [id],
  }),
  taught: ({ email }, courseId) => ({
    where: `EXISTS (SELECT 1 FROM course_people WHERE course_people.course_id = ${courseId} AND course_people.email = ?)`,
    values: [email],
  }),
}

/** Whether somebody may see a course, as a condition on an SQL expression that holds its id: by any of their roles. */
export const visibleTo = (person: Person | 'system', courseId: string): Condition => {
  if (person === 'system' || seesWholeCollege(person)) return { where: 'TRUE', values: [] }
  const scopes = [...new Set(person.roles.map((role) => courseScopes[role]))]
  const each = scopes.map((scope) => conditions[scope](person, courseId))
  return {
    where: ['FALSE', ...each.map(({ where }) => where)].join(' OR '),
    values: each.flatMap(({ values }) => values),
  }
}

/** Those of these courses that somebody may see. */
export const visibleAmong = async (
  database: Database,
  person: Person,
  courseIds: readonly number[],
): Promise<number[]> => {
  const ids = anyOf(courseIds)
  const seen = visibleTo(person, 'courses.id')
  const rows = await rowsOf<{ id: number }>(
    database,
    `SELECT courses.id
     FROM courses
     WHERE courses.id IN ${ids.sql} AND (${seen.where})`,
    [...ids.values, ...seen.values],
  )
  return rows.map(({ id }) => id)
}

/** Those of somebody’s roles that are about a course that they may see; who only helps there is an assistant in it. */
export const rolesAbout = async (
  database: Database,
  person: Person,
  course: number,
): Promise<CourseRole[]> => {
  if (person.roles.length < 2 && !person.roles.includes('instructor')) return person.roles
  const each = person.roles.map((role) => conditions[courseScopes[role]](person, 'courses.id'))
  const row = await firstRow<Record<string, number | null>>(
    database,
    `SELECT ${each.map(({ where }, i) => `(${where}) AS role${i}`).join(', ')},
       (
         SELECT course_people.duty = 'assistant'
         FROM course_people
         WHERE course_people.course_id = courses.id AND course_people.email = ?
       ) AS helps
     FROM courses
     WHERE courses.id = ?`,
    [...each.flatMap(({ values }) => values), person.email, course],
  )
  return person.roles
    .filter((_, i) => row?.[`role${i}`] === 1)
    .map((role) => (role === 'instructor' && row?.['helps'] === 1 ? 'assistant' : role))
}

/** Whether somebody may do something to a course that they may see: by a role that may, and that is about it. */
export const mayToCourse = async (
  database: Database,
  person: Person,
  capability: Capability,
  course: number,
): Promise<boolean> => rolesThat(await rolesAbout(database, person, course), capability).length > 0

/** Somebody in those of their roles that may do something. */
export const actingTo = (person: Person, capability: Capability): Person => ({
  ...person,
  roles: rolesThat(person.roles, capability),
})
