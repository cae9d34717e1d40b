import { z } from 'zod'
import { isDaySpan, rangesAgree, rangesNamed, rangeSaid, writeField } from '../../naming/index.ts'
import { proposedName, renameModule } from '../names/nameVerdict.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const weekDates = defineRule({
  id: 'week-dates',
  group: 'dates',
  title: 'Dates in module names are this term’s',
  why: 'Students plan by the dates in the names; last year’s dates send them to class a day late all term.',
  untold:
    'Modules whose names carry no dates, modules for the whole course, and a module into which several weeks were folded.',
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
      else if (
        !isDaySpan(wanted) ||
        part.definition.span === 'course' ||
        context.sharesModule(part) ||
        context.awaitsUnits(part)
      )
        yield { subject, outcome: 'inapplicable' }
      else {
        const said = context
          .readingOf(part, module.name)
          ?.readings.find((reading) => reading.field === 'dates' && reading.state !== 'absent')
        if (said?.state === 'right') {
          yield { subject, outcome: 'passed' }
          continue
        }
        // A range in any spelling; or, as some write it, the first day alone.
        const named = rangesNamed(said?.text ?? module.name, wanted.first, wanted)[0]
        const range = named ?? rangeSaid(said?.text ?? module.name, wanted.first)
        const seen = said?.text ?? named?.text ?? module.name
        if (!range) yield { subject, outcome: 'inapplicable' }
        else if (
          rangesAgree(
            range,
            range.first === range.last ? { first: wanted.first, last: wanted.first } : wanted,
            toleranceDays,
          )
        )
          yield { subject, outcome: 'passed' }
        else {
          const expected = writeField('dates', null, wanted)
          yield {
            subject,
            outcome: 'failed',
            message: 'dates',
            values: {
              name: module.name,
              seen,
              what: part.values.week === undefined ? 'it' : `week ${String(part.values.week)}`,
              expected,
            },
            evidence: [{ kind: 'date', text: seen }],
            expected: proposedName(context, part, module.name) ?? expected,
            itemId: module.id,
          }
        }
      }
    }
  },
  mend: (verdict, context) =>
    verdict.subject.about === 'part' ? renameModule(context, verdict.subject.part) : [],
})
