import { courseValues } from '../../expand/index.ts'
import { formatOf, judgeName, readName } from '../../naming/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutCourse, type Verdict } from '../rule.ts'

export const courseNameMessages = {
  field: 'The course {is} “{name}”; its {field} should be {expected}, not {seen}.',
  form: 'The course {is} “{name}”; by the format it would be “{wanted}”.',
}

/**
 * What there is to say of a course's name or label, by its format.
 * @param is how the sentence names it: `is called`, `is labelled`
 */
export const tellCourseName = (
  context: CheckContext,
  format: string,
  name: string,
  wanted: string,
  is: string,
  acceptSmallDifferences: boolean,
): Verdict => {
  const values = courseValues(context.expected.facts)
  const reading = readName(formatOf(format), name, values)
  const failed = { subject: aboutCourse, outcome: 'failed', expected: wanted } as const
  const wrong = reading?.readings.find((reading) => reading.state === 'wrong')
  if (wrong)
    return {
      ...failed,
      message: 'field',
      values: { is, name, field: wrong.field, expected: wrong.expected ?? '', seen: wrong.text },
      evidence: [{ kind: 'words', text: wrong.text }],
    }
  if (reading && (reading.follows === 'exact' || acceptSmallDifferences))
    return { subject: aboutCourse, outcome: 'passed' }
  const { mended } = judgeName(formatOf(format), name, context.nameContext(values))
  return {
    ...failed,
    message: 'form',
    values: { is, name, wanted: mended ?? wanted },
    evidence: [{ kind: 'words', text: name }],
  }
}
