import {
  everyCourseItem,
  everyModule,
  type Course,
  type CourseItem,
  type CourseModule,
} from '../course/index.ts'

/** What of a course people changed between two reads of it, by the platform's ids. */
export interface CourseEdits {
  added: string[]
  removed: string[]
  /** Modules and items that are in both and read otherwise, or stand elsewhere. */
  changed: string[]
  /** Whether the course itself was: its name, home page, navigation, settings, grades. */
  course: boolean
}

/** What people write or set of an item. Its address, and whether students handed something in, follow by themselves. */
const writtenOfItem = (item: CourseItem, parent: string | null): string =>
  JSON.stringify([
    parent,
    item.kind,
    item.name,
    item.published,
    item.staffOnly,
    item.opensAt,
    item.dueAt,
    item.closesAt,
    item.points,
    item.category,
    item.html,
    item.target,
    item.work,
    item.rubric,
    item.questions,
    item.file,
  ])
const writtenOfModule = (module: CourseModule): string =>
  JSON.stringify([module.name, module.published, module.staffOnly, module.opensAt])
const writtenOfCourse = ({
  name,
  label,
  published,
  homePage,
  navigation,
  settings,
  grading,
}: Course): string =>
  JSON.stringify([name, label, published, homePage, navigation, settings, grading])

const writtenIn = (course: Course): Map<string, string> =>
  new Map([
    ...everyModule(course.modules).map((module) => [module.id, writtenOfModule(module)] as const),
    ...everyCourseItem(course).map(
      ({ item, module }) => [item.id, writtenOfItem(item, module?.id ?? null)] as const,
    ),
  ])

/** The order in which students meet what stands in each module, and the modules themselves (under no id). */
const ordersIn = (course: Course): Map<string, string[]> =>
  new Map([
    ['', course.modules.map(({ id }) => id)],
    ...everyModule(course.modules).map(
      ({ id, children }) => [id, children.map((child) => child.id)] as const,
    ),
  ])

/**
 * What of a course is other than it was when it was read before. Where things only changed their places among others, what they
 * stand in counts as changed, once.
 */
export const editsBetween = (before: Course, after: Course): CourseEdits => {
  const was = writtenIn(before)
  const now = writtenIn(after)
  const changed = new Set(
    [...now].flatMap(([id, text]) => (was.has(id) && was.get(id) !== text ? [id] : [])),
  )
  const orderBefore = ordersIn(before)
  let course = writtenOfCourse(before) !== writtenOfCourse(after)
  for (const [id, order] of ordersIn(after)) {
    const earlier = orderBefore.get(id)
    if (!earlier) continue
    const stayed = order.filter((one) => earlier.includes(one))
    if (stayed.join('\n') === earlier.filter((one) => order.includes(one)).join('\n')) continue
    if (id === '') course = true
    else changed.add(id)
  }
  return {
    added: [...now.keys()].filter((id) => !was.has(id)),
    removed: [...was.keys()].filter((id) => !now.has(id)),
    changed: [...changed],
    course,
  }
}

/** How many edits that comes to. */
export const editCount = ({ added, removed, changed, course }: CourseEdits): number =>
  added.length + removed.length + changed.length + (course ? 1 : 0)
