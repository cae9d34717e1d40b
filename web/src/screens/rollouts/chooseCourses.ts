import { misfitsOf, type Template } from '@wickerframe/core'
import type { CourseSummary } from '@wickerframe/contract'

export const courseSorts = [
  'shell',
  'deployed',
  'other-content',
  'checked-only',
  'other-template',
  'misfit',
  'not-read',
  'preparing',
  'duplicate',
  'no-instructor',
  'out',
] as const
export type CourseSort = (typeof courseSorts)[number]

export interface SortedCourse {
  course: CourseSummary
  sort: CourseSort
  /** Why it is left out until somebody decides; null for a course that simply takes part. */
  odd: string | null
}

/** Class sections that stand in more than one course that is taught or prepared, by term, code and section. */
const doubled = (courses: readonly CourseSummary[]): Set<number> => {
  const holders = new Map<string, CourseSummary[]>()
  for (const course of courses)
    for (const section of course.classSections) {
      const key = JSON.stringify([course.term, course.code, section])
      holders.set(key, [...(holders.get(key) ?? []), course])
    }
  return new Set(
    [...holders.values()]
      .filter((held) => held.length > 1)
      .flatMap((held) => held.map((course) => course.id)),
  )
}

/**
 * Tells courses apart before anything is planned: what each is, and which are odd.
 * @param wanted the template that is to be brought into them; null while none is chosen
 */
export const sortCourses = (
  courses: readonly CourseSummary[],
  wanted: Pick<Template, 'key' | 'appliesTo'> | null,
): SortedCourse[] => {
  const alive = courses.filter(
    (course) => course.status === 'teaching' || course.status === 'preparing',
  )
  const twice = doubled(alive)
  return courses.map((course): SortedCourse => {
    if (course.status !== 'teaching' && course.status !== 'preparing')
      return { course, sort: 'out', odd: `it is ${course.status}` }
    if (twice.has(course.id))
      return { course, sort: 'duplicate', odd: 'another course has the same class section' }
    if (course.instructors.length === 0)
      return { course, sort: 'no-instructor', odd: 'nobody teaches it yet' }
    if (course.status === 'preparing')
      return { course, sort: 'preparing', odd: 'it is a course somebody prepares in' }
    if (course.state === 'other-content')
      return {
        course,
        sort: 'other-content',
        odd: 'it holds content that Wickerframe did not put there',
      }
    if (course.state === 'checked-only')
      return { course, sort: 'checked-only', odd: 'it is under a version for checking only' }
    if (wanted && course.template && course.template.key !== wanted.key)
      return { course, sort: 'other-template', odd: `it stands under ${course.template.title}` }
    const misfits = wanted ? misfitsOf(wanted.appliesTo, course) : []
    if (misfits.length > 0)
      return { course, sort: 'misfit', odd: `the template is meant for ${misfits.join('; for ')}` }
    return { course, sort: course.state, odd: null }
  })
}

export const sortWords: Record<CourseSort, string> = {
  shell: 'shells',
  deployed: 'deployed before',
  'other-content': 'with other content',
  'checked-only': 'for checking only',
  'other-template': 'under another template',
  misfit: 'that the template is not meant for',
  'not-read': 'not read yet',
  preparing: 'preparing',
  duplicate: 'twice for one class section',
  'no-instructor': 'without instructor',
  out: 'set aside, merged or cancelled',
}
