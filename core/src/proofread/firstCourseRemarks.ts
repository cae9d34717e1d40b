import type { Template } from '../template/index.ts'
import type { Remark } from './remark.ts'
import { firstFindings, type FirstFinding } from './firstFindings.ts'

/** What proofreading calls what it finds as the first course would. */
export const firstCourseCheck = 'first-course'

const when = ({ variant, fromWeek }: FirstFinding): string =>
  fromWeek === null ? variant : `${variant}; from week ${fromWeek} on`

/**
 * Remarks on what a course would be told that was just deployed and filled in perfectly: the template’s own to mend. They stop no
 * release. One list for each kind of course, as soon as it is known.
 */
export function* firstCourseRemarks(template: Template): Generator<Remark[]> {
  const remark = (part: string | null, message: string): Remark => ({
    check: firstCourseCheck,
    severity: 'warning',
    part,
    block: null,
    message,
  })
  for (const { variant, found } of firstFindings(template))
    yield found === null
      ? [
          remark(
            null,
            `It cannot be worked out for courses that are ${variant}: nothing is known of what they would be told.`,
          ),
        ]
      : found.map((finding) =>
          remark(
            finding.part,
            `A course filled in perfectly would be told: ${finding.message.replace(/\.$/, '')} (${when(finding)}).`,
          ),
        )
}
