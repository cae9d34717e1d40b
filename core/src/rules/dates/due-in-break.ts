import { z } from 'zod'
import { isHeld } from '../../template/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const dueInBreak = defineRule({
  id: 'due-in-break',
  group: 'dates',
  title: 'Nothing is due in a break',
  why: 'The college promised these days free; work due in them breaks that promise and is handed in late.',
  untold:
    'Work that is due on the last day before a break or the first after it; holidays, unless the template counts them.',
  strength: 'should',
  parameters: z.strictObject({ holidaysToo: z.boolean().default(true) }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: {
    due: '“{name}” is due {due}, in {pause}.',
    held: '“{name}” is held {due}, in {pause}.',
  },
  *check(context, { holidaysToo }): Generator<Verdict> {
    const { term } = context
    const free = [
      ...term.breaks,
      ...(holidaysToo
        ? term.holidays.map((day) => ({ name: day.name, first: day.date, last: day.date }))
        : []),
    ]
    for (const { item } of context.placedItems) {
      if (item.dueAt === null) continue
      const subject = aboutFound(context, item)
      const due = context.dateOf(item.dueAt)
      const pause = free.find(({ first, last }) => due >= first && due <= last)
      if (!pause) yield { subject, outcome: 'passed' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: isHeld(item) ? 'held' : 'due',
          values: { name: item.name, due, pause: pause.name },
          evidence: [{ kind: 'date', text: due }],
          expected: `a day outside ${pause.name}`,
          itemId: item.id,
        }
    }
  },
})
