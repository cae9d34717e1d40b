import { z } from 'zod'
import { addDays } from '../../calendar/index.ts'
import { isHeld } from '../../template/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'
import { dueAsWanted } from './dueMend.ts'

export const dueOutsideTerm = defineRule({
  id: 'due-outside-term',
  group: 'dates',
  title: 'Work is due within the term',
  why: 'Work due before the first day counts as late for everybody; work due after the last is forgotten, and grades are due before it.',
  untold:
    'One day of grace after the last day of class. In a course of a session, the session is the term.',
  strength: 'must',
  parameters: z.strictObject({
    graceDays: z
      .number()
      .int()
      .min(0)
      .max(60)
      .default(1)
      .describe('Days after the last day of class'),
  }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: {
    outside: '“{name}” is due {due}; {term} runs from {first} to {last}.',
    held: '“{name}” is held {due}; {term} runs from {first} to {last}.',
  },
  *check(context, { graceDays }): Generator<Verdict> {
    const { term, session } = context.expected.facts
    // A course of a session runs in the session, not in the whole term.
    const span = term.sessions.find(({ code }) => code === session) ?? context.term
    for (const { item } of context.placedItems) {
      if (item.dueAt === null) continue
      const part = context.partOf(item.id)
      const subject = aboutFound(context, item)
      const due = context.dateOf(item.dueAt)
      if (due >= span.firstDay && due <= addDays(span.lastDay, graceDays)) {
        if (part) yield { subject, outcome: 'passed' }
      } else
        yield {
          subject,
          outcome: 'failed',
          message: isHeld(item) ? 'held' : 'outside',
          values: {
            name: item.name,
            due,
            term: span.title,
            first: span.firstDay,
            last: span.lastDay,
          },
          evidence: [{ kind: 'date', text: due }],
          expected: part?.dueAt
            ? context.dateOf(part.dueAt)
            : `${span.firstDay} to ${span.lastDay}`,
          itemId: item.id,
        }
    }
  },
  mend: (verdict, context) => dueAsWanted(verdict.subject, context),
})
