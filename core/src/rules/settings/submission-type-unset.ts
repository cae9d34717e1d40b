import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const submissionTypeUnset = defineRule({
  id: 'submission-type-unset',
  group: 'settings',
  title: 'Assignments say what is handed in',
  why: 'Students open the assignment on the last evening and find no place to hand their work in.',
  untold: 'Own work without points.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { unset: '“{name}” takes nothing in: what is handed in is {seen}.' },
  *check(context): Generator<Verdict> {
    for (const { item } of context.placedItems) {
      if (item.kind !== 'assignment') continue
      const part = context.partOf(item.id)
      const subject = aboutFound(context, item)
      const wanted = part?.definition.settings.handIn
      const seen = item.work?.handIn
      if (seen !== undefined && (seen !== 'none' || wanted === 'none'))
        yield { subject, outcome: 'passed' }
      else if (
        (wanted === undefined || wanted === 'none') &&
        (item.work === undefined || (item.points ?? 0) === 0)
      )
        yield { subject, outcome: 'inapplicable' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'unset',
          values: { name: item.name, seen: seen ?? 'not set' },
          evidence: [{ kind: 'value', text: seen ?? 'not set' }],
          expected: wanted ?? 'a file, text, link or recording',
          itemId: item.id,
        }
    }
  },
  mend(verdict, context): Change[] {
    const there = verdict.subject.about === 'part' ? context.itemFor(verdict.subject.part) : null
    const handIn = there?.part.definition.settings.handIn
    return there && handIn
      ? [
          {
            change: 'set-item',
            id: there.item.id,
            fields: { work: { ...there.item.work, handIn } },
          },
        ]
      : []
  },
})
