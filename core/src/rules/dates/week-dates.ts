import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { formatOf, isDaySpan, rangesAgree, rangeSaid, readName, writeField } from '../../naming/index.ts'
import { moduleFormat } from '../names/module-name.ts'
import { rewritten } from '../names/nameVerdict.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const weekDates = defineRule({
  id: 'week-dates',
  group: 'dates',
  title: 'Dates in module names are this term’s',
  why: 'Students plan by the dates in the names; last year’s dates send them to class a day late all term.',
  strength: 'must',
  parameters: z.strictObject({ toleranceDays: z.number().int().min(0).max(6).default(0) }),
  mender: 'designer',
  effortMinutes: 1,
  messages: { dates: '“{name}” says {seen}; {what} runs {expected}.' },
  *check(context, { toleranceDays }): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.kind !== 'module') continue
      const subject = aboutPart(part)
      const wanted = part.values.dates
      const module = context.moduleFor(part)
      if (!module) yield { subject, outcome: 'absent' }
      else if (!isDaySpan(wanted) || part.definition.span === 'course') yield { subject, outcome: 'inapplicable' }
      else {
        const reading = readName(formatOf(moduleFormat(part)), module.name, part.values)
        const said = reading?.readings.find((one) => one.field === 'dates')
        const range = rangeSaid(said?.text ?? module.name, wanted.first)
        if (!range) yield { subject, outcome: 'inapplicable' }
        else if (rangesAgree(range, wanted, toleranceDays)) yield { subject, outcome: 'passed' }
        else {
          const expected = writeField('dates', null, wanted)
          yield {
            subject,
            outcome: 'failed',
            message: 'dates',
            values: { name: module.name, seen: said?.text ?? `${range.first} to ${range.last}`, what: part.values.week === undefined ? 'it' : `week ${String(part.values.week)}`, expected },
            evidence: [{ kind: 'date', text: said?.text ?? module.name }],
            expected: reading ? rewritten(moduleFormat(part), reading, part.values) : expected,
            itemId: module.id,
          }
        }
      }
    }
  },
  mend(verdict, context): Change[] {
    if (verdict.subject.about !== 'part') return []
    const { part } = verdict.subject
    const module = context.moduleFor(part)
    const reading = module ? readName(formatOf(moduleFormat(part)), module.name, part.values) : null
    return module && reading ? [{ change: 'set-module', id: module.id, fields: { name: rewritten(moduleFormat(part), reading, part.values) } }] : []
  },
  examples: {
    passes: [
      { title: 'the dates of the term', change: () => {} },
      { title: 'the same days with the month first written in full', change: ({ module }) => void (module('week', 3).name = 'Week 3 · September 14 – September 20 · Compass') },
    ],
    fails: [
      { title: 'last year’s dates', change: ({ module }) => void (module('week', 3).name = 'Week 3 · Sep 15 – Sep 21 · Compass'), evidence: 'Sep 15 – Sep 21' },
      { title: 'the dates of the week before', change: ({ module }) => void (module('week', 4).name = 'Week 4 · Sep 14 – Sep 20 · Tides'), evidence: 'Sep 14 – Sep 20' },
    ],
  },
})
