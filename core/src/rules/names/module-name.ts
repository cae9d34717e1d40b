import { z } from 'zod'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { nameMessages, renameModule, tellName } from './nameVerdict.ts'

export const moduleName = defineRule({
  id: 'module-name',
  group: 'names',
  title: 'Modules are named by their format',
  why: 'Students find their week by its number and dates; a module named otherwise is a guess.',
  untold:
    'Small differences unless the template counts them, wrong dates and repeated numbers, which have rules of their own; a module into which several weeks were folded; and weeks in units that cannot be read.',
  strength: 'should',
  parameters: z.strictObject({ acceptSmallDifferences: z.boolean().default(true) }),
  mender: 'designer',
  effortMinutes: 1,
  messages: nameMessages,
  *check(context, { acceptSmallDifferences }): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.kind !== 'module') continue
      const subject = aboutPart(part)
      const module = context.moduleFor(part)
      if (!module) {
        yield { subject, outcome: 'absent' }
        continue
      }
      if (context.sharesModule(part) || context.awaitsUnits(part)) {
        yield { subject, outcome: 'inapplicable' }
        continue
      }
      yield tellName(context, part, module, acceptSmallDifferences)
    }
  },
  mend: (verdict, context) =>
    verdict.subject.about === 'part' ? renameModule(context, verdict.subject.part) : [],
})
