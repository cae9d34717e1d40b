import type { ExpectedPart } from '../../expand/index.ts'
import type { FieldName } from '../../naming/index.ts'
import type { Change } from '../../course/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutPart, type Verdict } from '../rule.ts'

/** Fields whose wrong value another rule tells: week-dates. */
export const datesAreToldElsewhere: ReadonlySet<FieldName> = new Set<FieldName>([
  'dates',
  'start',
  'end',
  'due',
])

/** A mended name is proposed as a change only above this; below it the sentence alone stands. */
export const proposeFrom = 0.8

/** Messages of the rules that judge the name of a part. */
export const nameMessages = {
  field: '“{name}” says {seen} where its {field} should be {expected}.',
  unfilled: '“{name}” still waits for its {field}.',
  form: '“{name}” does not follow the format; it would read “{wanted}”.',
}

/** What there is to say of the name of a part's module or item. Wrong dates are left to the rule that tells them. */
export const tellName = (
  context: CheckContext,
  part: ExpectedPart,
  found: { id: string; name: string },
  acceptSmallDifferences: boolean,
): Verdict => {
  const subject = aboutPart(part)
  const { name } = found
  if (name === part.name && part.unfilledFields.length === 0) return { subject, outcome: 'passed' }
  const reading = context.readingOf(part, name)
  const failed = {
    subject,
    outcome: 'failed',
    itemId: found.id,
    evidence: [{ kind: 'words', text: name }],
  } as const
  if (!reading) {
    const wanted = context.judgementOf(part, name).mended ?? part.name
    return { ...failed, message: 'form', values: { name, wanted }, expected: wanted }
  }
  const wrong = reading.readings.find(
    (reading) => reading.state === 'wrong' && !datesAreToldElsewhere.has(reading.field),
  )
  if (wrong) {
    const expected = wrong.expected ?? ''
    return {
      ...failed,
      message: 'field',
      values: { name, seen: wrong.text, field: wrong.field, expected },
      evidence: [{ kind: 'words', text: wrong.text }],
      expected: context.judgementOf(part, name).mended ?? part.name,
    }
  }
  const prompt = reading.readings.find((reading) => reading.isPrompt)
  if (prompt) {
    const need = context.needOf(part)
    if (!context.reached(need)) return { subject, outcome: 'not-due-yet', dueOn: need }
    return {
      ...failed,
      message: 'unfilled',
      values: { name, field: prompt.field },
      expected: `a ${prompt.field}`,
    }
  }
  if (reading.follows === 'exact' || acceptSmallDifferences) return { subject, outcome: 'passed' }
  return {
    ...failed,
    message: 'form',
    values: { name, wanted: reading.tidied },
    expected: reading.tidied,
  }
}

/** The right name of a part's module or item, where it is sure enough to propose; null otherwise, or where it stands already. */
export const proposedName = (
  context: CheckContext,
  part: ExpectedPart,
  name: string,
): string | null => {
  const { mended, confidence } = context.judgementOf(part, name)
  return mended !== null && mended !== name && confidence >= proposeFrom ? mended : null
}

/** The change that gives the module of a part its right name. */
export const renameModule = (context: CheckContext, part: ExpectedPart): Change[] => {
  const module = context.moduleFor(part)
  const name = module ? proposedName(context, part, module.name) : null
  return module && name !== null ? [{ change: 'set-module', id: module.id, fields: { name } }] : []
}

/** The change that gives the item of a part its right name. */
export const renameItem = (context: CheckContext, part: ExpectedPart): Change[] => {
  const there = context.itemFor(part)
  const name = there ? proposedName(context, part, there.item.name) : null
  return there && name !== null ? [{ change: 'set-item', id: there.item.id, fields: { name } }] : []
}
