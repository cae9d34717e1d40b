import type { CourseItem } from '../../course/index.ts'
import type { ExpectedPart } from '../../expand/index.ts'
import type { ShownFile } from '../../files/index.ts'
import { isModule } from '../../template/index.ts'
import type { BaseEntry } from '../base.ts'
import { sameValue } from '../mergeCase.ts'

/** The file that people put where one was deployed, or asked for; null where what stands is what was deployed, or nothing. */
export const theirFile = (item: CourseItem | undefined, entry: BaseEntry): ShownFile | null => {
  const base = entry.fields['file']
  return item?.file && (base === undefined || !sameValue(base.echo, item.file)) ? item.file : null
}

/**
 * Whether a file of theirs comes along to a part of the new course: where that was left to them. A form that they filled in speaks of
 * its term, so that another term begins with a blank one.
 */
export const fileComesAlong = (part: ExpectedPart, sameTerm: boolean): boolean => {
  const { definition, file } = part
  if (isModule(definition) || definition.file?.left === undefined) return false
  return definition.file.left === 'proposed' || file === null || sameTerm
}
