import type { CourseItem } from '../course/index.ts'
import type { ExpectedPart, Fields } from '../expand/index.ts'
import type { BaseEntry } from './base.ts'
import { sameValue } from './mergeCase.ts'
import { isFileUntold } from './untold.ts'

/** Whether an instructor put a file of theirs where that is left to them, or where the template has none: it stays, and nobody is asked. */
const isTheirs = (
  { file }: ExpectedPart,
  entry: BaseEntry | undefined,
  present: NonNullable<CourseItem['file']>,
): boolean => {
  const base = entry?.fields['file']
  return file?.left !== null && (base === undefined || !sameValue(base.echo, present))
}

/** What the template wants of a part, without a file that is not to be written. */
export const withoutOwnFile = (
  wanted: Fields,
  part: ExpectedPart,
  entry: BaseEntry | undefined,
  item: CourseItem | null,
): Fields => {
  if (wanted['file'] === undefined) return wanted
  const stays =
    isFileUntold(item) || (item?.file ? isTheirs(part, entry, item.file) : item?.kind !== 'file')
  if (!stays) return wanted
  const { file: _, ...others } = wanted
  return others
}
