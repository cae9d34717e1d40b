import type { Course } from '../../course/index.ts'
import { foldedName } from '../../naming/index.ts'
import { isNavigationAddress, targetIn, type Template } from '../../template/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutCourse } from '../rule.ts'

type Entry = Course['navigation'][number]

/** The entries of the template with what stands for each in the course, by label, and what every verdict on one says. */
export const pairedEntries = (context: CheckContext) => {
  const labels = context.course.navigation.map((entry) => foldedName(entry.label))
  return context.expected.template.navigation.map((wanted) => {
    const place = labels.indexOf(foldedName(wanted.label))
    const found: Entry | null = context.course.navigation[place] ?? null
    const told = {
      subject: aboutCourse,
      discriminator: wanted.key,
      strength: wanted.strength,
    } as const
    return { wanted, found, place, told }
  })
}

/** Ids of what stands for a part of the template in the course, in order. */
const standingFor = (context: CheckContext, part: string): string[] =>
  context
    .partsOfKey(part)
    .flatMap((part) =>
      part.kind === 'module'
        ? (context.moduleFor(part)?.id ?? [])
        : (context.itemFor(part)?.item.id ?? []),
    )

/** Where an entry may lead in the course; null where the template does not say, nothing where what it says is not there. */
export const wantedTargets = (
  context: CheckContext,
  { to }: Template['navigation'][number],
): string[] | null => {
  if (to === undefined) return null
  const part = targetIn('part', to)
  return part === null ? [to] : standingFor(context, part).map((id) => `item:${id}`)
}

/** The course's navigation with the template's entries in their order, each as the template wants it; others keep after them. */
export const mendedNavigation = (context: CheckContext): Entry[] => {
  const known = new Set(context.expected.template.navigation.map(({ label }) => foldedName(label)))
  return [
    ...pairedEntries(context).map(({ wanted, found }) => {
      const { label, hidden } = wanted
      const targets = wantedTargets(context, wanted) ?? []
      const to = targets.find((target) => target === found?.to) ?? targets[0] ?? found?.to
      return { label, hidden, ...(to === undefined ? {} : { to }) }
    }),
    ...context.course.navigation
      .filter((entry) => !known.has(foldedName(entry.label)))
      .map(({ to, ...entry }) =>
        to === undefined || !isNavigationAddress(to) ? entry : { ...entry, to },
      ),
  ]
}
