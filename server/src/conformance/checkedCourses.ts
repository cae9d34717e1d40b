import type { CourseLine, CourseSummary, MendFirstAction, NamedCourse } from '@wickerframe/contract'
import { mendFirst } from '@wickerframe/core'
import { listChecks, type CheckDigest } from '../checks/checkDigests.ts'
import { ownerName } from './bandOfCourse.ts'
import { listCourses, type StoredCourse } from '../courses/courses.ts'
import type { AboutCourse } from '../courses/routes.ts'
import type { Situation } from '../http/handler.ts'
import { findVersionById } from '../templates/templates.ts'

/** Courses that count (only teaching ones do), their checks as of a date, and the templates they are held to. */
export const checkedCourses = async ({
  pool,
  person,
  today,
  query,
}: Situation & Pick<AboutCourse, 'query'>) => {
  const asOf = query.asOf ?? today
  const [all, checks] = await Promise.all([listCourses(pool, person, asOf), listChecks(pool, asOf)])
  const courses = all.filter((stored) => stored.summary.status === 'teaching')
  const versions = new Map<string, NonNullable<Awaited<ReturnType<typeof findVersionById>>>>()
  for (const { templateId, version } of courses) {
    if (templateId === null || version === null || versions.has(`${templateId}/${version}`))
      continue
    const found = await findVersionById(pool, templateId, version)
    if (found) versions.set(`${templateId}/${version}`, found)
  }
  return {
    asOf,
    courses,
    checks,
    templates: [...versions.values()].map((version) => version.document),
  }
}

const mostNamed = 12

/** What to mend first in some courses, each with the first courses in which it stands. */
export const actionsOver = (
  courses: readonly StoredCourse[],
  checks: ReadonlyMap<number, CheckDigest>,
  most: number,
): MendFirstAction[] => {
  const named = new Map(courses.map(({ summary }) => [String(summary.id), namedCourse(summary)]))
  const results = courses.flatMap(({ summary: { id } }) => {
    const check = checks.get(id)
    return check ? [{ course: { id: String(id) }, musts: check.openMusts }] : []
  })
  return mendFirst(results, most).map(({ courses: ids, owners, ...action }) => ({
    ...action,
    count: ids.length,
    people: owners.length,
    courses: ids.slice(0, mostNamed).flatMap((id) => named.get(id) ?? []),
  }))
}

/** A course with whoever must act in it. */
export const courseLine = (summary: CourseSummary): CourseLine => ({
  ...namedCourse(summary),
  owner: ownerName(summary),
})

/** No more of a course than what it is named by. */
export const namedCourse = ({
  id,
  platformId,
  code,
  title,
  classSections,
}: CourseSummary): NamedCourse => ({ id, platformId, code, title, classSections })
