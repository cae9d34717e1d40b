import type { ExpectedPart } from '../../expand/index.ts'
import { formatOf, readName, renderName, type FieldName, type FieldValues, type NameReading } from '../../naming/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutPart, type Verdict } from '../rule.ts'

/** Fields whose wrong value another rule tells: week-dates. A topic is the instructor's own. */
const notJudgedHere = new Set<FieldName>(['dates', 'start', 'end', 'due', 'topic'])

export type NameVerdict =
  | { state: 'follows' }
  | { state: 'small-differences'; wanted: string }
  | { state: 'wrong-field'; field: FieldName; seen: string; expected: string; wanted: string }
  | { state: 'unfilled'; field: FieldName }
  | { state: 'does-not-follow' }

/** The name as the format would write it, with the instructor's own words kept and the rest set right. */
export const rewritten = (format: string, reading: NameReading, values: FieldValues): string => {
  const own: FieldValues = { ...values }
  for (const one of reading.readings) if (!one.isPrompt && (one.field === 'topic' || own[one.field] === undefined)) own[one.field] = one.text
  return renderName(formatOf(format), own).text
}

/** How a name stands to its format, in this place. Wrong dates are left to the rule that tells them. */
export const judgeName = (format: string, name: string, values: FieldValues): NameVerdict => {
  const reading = readName(formatOf(format), name, values)
  if (!reading) return { state: 'does-not-follow' }
  const wrong = reading.readings.find((one) => one.expected !== null && !one.isPrompt && !notJudgedHere.has(one.field))
  if (wrong && wrong.expected !== null) return { state: 'wrong-field', field: wrong.field, seen: wrong.text, expected: wrong.expected, wanted: rewritten(format, reading, values) }
  const prompt = reading.readings.find((one) => one.isPrompt)
  if (prompt) return { state: 'unfilled', field: prompt.field }
  return reading.follows === 'exact' ? { state: 'follows' } : { state: 'small-differences', wanted: rewritten(format, reading, values) }
}

/** Messages of the rules that judge the name of a part. */
export const nameMessages = {
  field: '“{name}” says {seen} where its {field} is {expected}.',
  unfilled: '“{name}” still waits for its {field}.',
  form: '“{name}” does not follow the format; it would read “{wanted}”.',
}

/** What there is to say of the name of a part's module or item. */
export const tellName = (context: CheckContext, part: ExpectedPart, found: { id: string; name: string }, format: string, acceptSmallDifferences: boolean): Verdict => {
  const subject = aboutPart(part)
  const { name } = found
  const failed = { subject, outcome: 'failed', itemId: found.id, evidence: [{ kind: 'words', text: name }] } as const
  const verdict = judgeName(format, name, part.values)
  switch (verdict.state) {
    case 'follows':
      return { subject, outcome: 'passed' }
    case 'small-differences':
      return acceptSmallDifferences ? { subject, outcome: 'passed' } : { ...failed, message: 'form', values: { name, wanted: verdict.wanted }, expected: verdict.wanted }
    case 'unfilled': {
      const need = context.needOf(part)
      if (!context.reached(need)) return { subject, outcome: 'not-due-yet', dueOn: need }
      return { ...failed, message: 'unfilled', values: { name, field: verdict.field }, expected: `a ${verdict.field}` }
    }
    case 'wrong-field':
      return {
        ...failed,
        message: 'field',
        values: { name, seen: verdict.seen, field: verdict.field, expected: verdict.expected },
        evidence: [{ kind: 'words', text: verdict.seen }],
        expected: verdict.wanted,
      }
    case 'does-not-follow':
      return { ...failed, message: 'form', values: { name, wanted: part.name }, expected: part.name }
  }
}
