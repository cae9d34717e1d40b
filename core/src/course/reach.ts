import type { Course, CourseItem, CourseModule } from './course.ts'

/**
 * Items that students can reach once the dates have come: published, in modules that are, however deep, in a course that is.
 * Dates on which something opens are left aside: what opens by itself will be seen.
 */
export const reachedItems = (course: Course): Set<string> => {
  const reached = new Set<string>()
  if (!course.published) return reached
  const add = (items: readonly CourseItem[]) => {
    for (const item of items) if (item.published) reached.add(item.id)
  }
  const visit = (modules: readonly CourseModule[]) => {
    for (const module of modules)
      if (module.published) {
        add(module.items)
        visit(module.modules)
      }
  }
  visit(course.modules)
  add(course.stray)
  return reached
}
