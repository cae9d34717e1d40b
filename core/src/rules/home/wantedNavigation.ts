import type { Course } from '../../course/index.ts'
import { foldedName } from '../../naming/index.ts'
import type { Template } from '../../template/index.ts'
import type { CheckContext } from '../context.ts'

type Entry = Course['navigation'][number]

/** The entries of the template with what stands for each in the course, by label. */
export const pairedEntries = (
  context: CheckContext,
): { wanted: Template['navigation'][number]; found: Entry | null; place: number }[] => {
  const labels = context.course.navigation.map((entry) => foldedName(entry.label))
  return context.expected.template.navigation.map((wanted) => {
    const place = labels.indexOf(foldedName(wanted.label))
    return { wanted, found: context.course.navigation[place] ?? null, place }
  })
}

/** The course's navigation with the template's entries in their order, each as the template wants it; others keep after them. */
export const mendedNavigation = (context: CheckContext): Entry[] => {
  const known = new Set(context.expected.template.navigation.map(({ label }) => foldedName(label)))
  return [
    ...context.expected.template.navigation.map(({ label, hidden }) => ({ label, hidden })),
    ...context.course.navigation.filter((entry) => !known.has(foldedName(entry.label))),
  ]
}
