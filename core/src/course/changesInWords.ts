import { changeKind, type Change } from './change/change.ts'
import { changeWording, type ChangeInWords } from './change/wording.ts'
import type { Course } from './course.ts'

/** What a change set does, change by change, in the words of people who do not know what a change set is. */
export const changesInWords = (
  changes: readonly Change[],
  course: Course,
  timeZone: string,
): ChangeInWords[] => {
  const wording = changeWording(course, timeZone)
  return changes.flatMap((change) => changeKind(change).words(change, wording))
}
