import type { Remark } from '@wickerframe/core'
import { plural } from '../../controls/controls.tsx'

/** What the worker tells, again and again. */
export interface FirstCourseNews {
  remarks: Remark[]
  isLast: boolean
}
/** What is known of the first courses of a draft. */
export interface FirstCourse {
  remarks: readonly Remark[]
  /** How many kinds of course were gone through. */
  kinds: number
  state: 'reading' | 'read' | 'failed'
}

/** How far reading as the first course would has come, in words. */
export const firstCourseWords = ({ remarks, kinds, state }: FirstCourse): string => {
  if (state === 'failed')
    return 'Reading as the first course would did not end; load the page again.'
  const found =
    remarks.length === 0
      ? 'nothing would be told that is not the instructor’s to do'
      : `${plural(remarks.length, 'thing')} would be told that ${remarks.length === 1 ? 'is' : 'are'} the template’s own`
  return state === 'read'
    ? `Worked out for ${plural(kinds, 'kind')} of course, deployed, filled in perfectly and checked for every day of the term: ${found}.`
    : `Being read as the first course would: ${plural(kinds, 'kind')} of course so far …`
}
