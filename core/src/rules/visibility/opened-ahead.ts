import { z } from 'zod'
import { addDays } from '../../calendar/index.ts'
import { type Change, itemsIn } from '../../course/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const openedAhead = defineRule({
  id: 'opened-ahead',
  group: 'visibility',
  title: 'Weeks open one at a time',
  why: 'Where a course opens week by week, a week that is open far ahead is read before it is finished.',
  untold:
    'Templates that open everything at once, and parts for which the template sets no opening.',
  strength: 'should',
  parameters: z.strictObject({ allowanceDays: z.number().int().min(0).max(120).default(7) }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { ahead: '“{module}” is open to students; its week begins only on {starts}.' },
  *check(context, { allowanceDays }): Generator<Verdict> {
    if (context.expected.template.opening.follow !== 'week-by-week') return
    for (const part of context.parts) {
      if (part.kind !== 'module' || part.week === null || part.definition.span === 'course')
        continue
      const subject = aboutPart(part)
      const module = context.moduleFor(part)
      if (!module) yield { subject, outcome: 'absent' }
      else if (context.reached(addDays(part.week.first, -allowanceDays)))
        yield { subject, outcome: 'passed' }
      // Where the template itself sets no opening, opening day for all weeks is what it asks for.
      else if (part.opensAt === null) yield { subject, outcome: 'inapplicable' }
      else {
        const content =
          context.moduleOpen(module) &&
          itemsIn(module).some((item) => context.studentsReach({ item, module }))
        if (!content) yield { subject, outcome: 'passed' }
        else
          yield {
            subject,
            outcome: 'failed',
            message: 'ahead',
            values: { module: module.name, starts: part.week.first },
            evidence: [
              {
                kind: 'value',
                text:
                  module.opensAt === null
                    ? 'no opening is set'
                    : `opened ${context.dateOf(module.opensAt)}`,
              },
            ],
            expected: `open from ${context.dateOf(part.opensAt)}`,
            itemId: module.id,
          }
      }
    }
  },
  mend(verdict, context): Change[] {
    const part = verdict.subject.about === 'part' ? verdict.subject.part : null
    const module = part ? context.moduleFor(part) : null
    return part && module && part.opensAt !== null
      ? [{ change: 'set-module', id: module.id, fields: { opensAt: part.opensAt } }]
      : []
  },
})
