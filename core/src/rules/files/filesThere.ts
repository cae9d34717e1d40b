import { restrictedFiles, type Course, type CourseItem } from '../../course/index.ts'
import type { ExpectedFile, ExpectedPart } from '../../expand/index.ts'
import { rememberOf } from '../../remember/index.ts'
import { isModule } from '../../template/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutPart, type Verdict } from '../rule.ts'

/** A part that hands out a file, and what stands for it in the course. */
export interface FileThere {
  part: ExpectedPart
  /** null: the instructor is to put one in. */
  wanted: ExpectedFile | null
  item: CourseItem
  /** null: the item shows none. */
  shown: NonNullable<CourseItem['file']> | null
}

/**
 * Verdicts about the parts that hand out a file, where the template says which or asks for one: absent, not told, or as judged.
 * @param concerns whether a part is one of those that are judged
 */
export function* perFile(
  context: CheckContext,
  concerns: (part: ExpectedPart) => boolean,
  judge: (there: FileThere) => Iterable<Verdict>,
): Generator<Verdict> {
  for (const part of context.parts) {
    const { definition } = part
    if (isModule(definition) || !definition.file || !concerns(part)) continue
    const subject = aboutPart(part)
    const item = context.itemFor(part)?.item
    if (!item) yield { subject, outcome: 'absent' }
    else if (item.kind !== 'file') yield { subject, outcome: 'inapplicable' }
    else if (item.file === undefined)
      yield {
        subject,
        outcome: 'cannot-tell',
        reason: 'the platform does not tell which file it shows',
        itemId: item.id,
      }
    else yield* judge({ part, wanted: part.file, item, shown: item.file })
  }
}

/** The text of what an item shows, as far as it was read; null where it was not. */
export const wordsShown = (context: CheckContext, content: string): string | null =>
  context.course.files?.find((file) => file.content === content && file.words !== undefined)
    ?.words ?? null

const restrictedOf = rememberOf((course: Course) => restrictedFiles(course))
/** What a file that stands in a course is told by: its name, unless it is kept from students, whose name is told nowhere. */
export const fileSeen = (
  { course }: CheckContext,
  { name, content }: { name: string; content?: string | undefined },
): string =>
  content !== undefined &&
  restrictedOf(course).shownBy({ url: null, target: null, file: { name, content } })
    ? 'a file that is kept from students'
    : `“${name}”`
