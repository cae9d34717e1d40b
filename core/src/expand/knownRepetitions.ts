import { everyCourseItem, everyModule, type Course } from '../course/index.ts'
import { isModule, type Part, type Template } from '../template/index.ts'
import type { KnownRepetition } from './expandCourse.ts'

/** For each part key, the key of the part whose repetition it takes part in: itself, the module it stands in, or the exception that adds it. */
const repeatedPartOf = (parts: readonly Part[], owner: string | null = null): [string, string][] =>
  parts.flatMap((part) => {
    const own =
      part.repeat && (isModule(part) || part.repeat.per !== 'week' || owner === null)
        ? part.key
        : owner
    return [
      ...(own === null ? [] : [[part.key, own] as [string, string]]),
      ...(isModule(part)
        ? [
            ...repeatedPartOf(part.items, own),
            ...part.exceptions.flatMap((exception) => repeatedPartOf(exception.add, exception.key)),
          ]
        : []),
    ]
  })

/** The repetition ids that stand recorded in a snapshot, so that they are carried over by number. */
export const knownRepetitions = (template: Template, course: Course): KnownRepetition[] => {
  const owners = new Map(repeatedPartOf(template.parts))
  const records = [
    ...everyModule(course.modules),
    ...everyCourseItem(course).map(({ item }) => item),
  ].flatMap(({ recordedAs }) => recordedAs ?? [])
  return records.flatMap(({ part, repetition, number }) => {
    const owner = owners.get(part)
    return owner === undefined || repetition === null || number === null
      ? []
      : [{ part: owner, number, id: repetition }]
  })
}
