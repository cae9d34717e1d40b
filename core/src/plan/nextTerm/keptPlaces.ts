import {
  type Course,
  type CourseItem,
  type CourseModule,
  isShown,
  modulesIn,
  restrictedFiles,
} from '../../course/index.ts'

/** Modules that stand in a course, by their id, each with those around it: itself first, then the one it stands in. */
export const modulesAround = (course: Course): Map<string, CourseModule[]> => {
  const found = new Map<string, CourseModule[]>()
  const visit = (modules: readonly CourseModule[], outer: readonly CourseModule[]) => {
    for (const module of modules) {
      const chain = [module, ...outer]
      found.set(module.id, chain)
      visit(modulesIn(module), chain)
    }
  }
  visit(course.modules, [])
  return found
}

/** Whether something never leaves its course. */
export interface KeptPlaces {
  item: (item: CourseItem, module: CourseModule | null) => boolean
  module: (module: CourseModule) => boolean
}

/**
 * What never leaves its course: it is hidden, or stands in a module that is hidden or for staff however deep, or is a file
 * that is kept from students (invariant 11).
 * @param isStaff whether a module was deployed for staff
 */
export const keptPlaces = (
  course: Course,
  isStaff: (module: CourseModule) => boolean,
): KeptPlaces => {
  const around = modulesAround(course)
  const restricted = restrictedFiles(course)
  const isKeptModule = (module: CourseModule): boolean =>
    (around.get(module.id) ?? [module]).some((outer) => !isShown(outer) || isStaff(outer))
  return {
    module: isKeptModule,
    item: (item, module) =>
      !isShown(item) || (module !== null && isKeptModule(module)) || restricted.shownBy(item),
  }
}
