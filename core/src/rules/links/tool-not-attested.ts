import { z } from 'zod'
import { addDays } from '../../calendar/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutFound, defineRule, orPassed, type Verdict } from '../rule.ts'

export const toolNotAttested = defineRule({
  id: 'tool-not-attested',
  group: 'links',
  title: 'Outside tools are confirmed for this term',
  why: 'A tool copied from last term is still paired with last term’s class; scores go nowhere. A snapshot cannot show it: somebody has to say so.',
  untold: 'Whether a tool works: somebody’s word is asked for each term, and no more.',
  strength: 'should',
  parameters: z.strictObject({
    noticeDays: z
      .number()
      .int()
      .min(0)
      .max(60)
      .default(7)
      .describe('Days before opening day on which the question is first asked'),
  }),
  mender: 'instructor',
  onlyInCourse: true,
  asksForWord: true,
  effortMinutes: 5,
  messages: { unconfirmed: 'Nobody has confirmed that “{name}” is set up for {term}.' },
  check: (context, { noticeDays }) => orPassed(unconfirmed(context, noticeDays)),
})

function* unconfirmed(context: CheckContext, noticeDays: number): Generator<Verdict> {
  for (const { item } of context.placedItems) {
    if (item.kind !== 'tool-link') continue
    const subject = aboutFound(context, item)
    if (!context.reached(addDays(context.openingDay, -noticeDays)))
      yield { subject, outcome: 'not-due-yet', dueOn: context.openingDay }
    else
      yield {
        subject,
        outcome: 'failed',
        message: 'unconfirmed',
        values: { name: item.name, term: context.expected.facts.term.title },
        evidence: [{ kind: 'value', text: item.target ?? item.name }],
        expected: 'a word that it is set up for this term',
        itemId: item.id,
        together: 'tools',
      }
  }
}
