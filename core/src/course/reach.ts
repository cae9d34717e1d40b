import { isCourseModule, isShown, type Course, type CourseChild } from './course.ts'

/**
 * Items that students can reach once the dates have come: shown, in modules that are, however deep, in a course that is.
 * Dates on which something opens are left aside: what opens by itself will be seen.
 */
export const reachedItems = (course: Course): Set<string> => {
  const reached = new Set<string>()
  if (!course.published) return reached
  const visit = (children: readonly CourseChild[]) => {
    for (const child of children)
      if (!isShown(child)) continue
      else if (isCourseModule(child)) visit(child.children)
      else reached.add(child.id)
  }
  visit(course.modules)
  visit(course.stray)
  return reached
}
