import { z } from 'zod'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'
import { nameMessages, renameModule, tellName } from './nameVerdict.ts'

export const moduleName = defineRule({
  id: 'module-name',
  group: 'names',
  title: 'Modules are named by their format',
  why: 'Students find their week by its number and dates; a module named otherwise is a guess.',
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
      yield tellName(context, part, module, acceptSmallDifferences)
    }
  },
  mend: (verdict, context) =>
    verdict.subject.about === 'part' ? renameModule(context, verdict.subject.part) : [],
  examples: {
    passes: [
      { title: 'the names that deployment gave', change: () => {} },
      {
        title: 'a topic of the instructor’s own, with a hyphen for the dash',
        change: ({ module }) =>
          void (module('week', 3).name = 'Week 3 · Sep 14 - Sep 20 · Compass and its errors'),
      },
      {
        title: 'wrong dates are told by week-dates, not here',
        change: ({ module }) =>
          void (module('week', 3).name = 'Week 3 · Sep 15 – Sep 21 · Compass'),
      },
    ],
    fails: [
      {
        title: 'a name in the instructor’s own style',
        change: ({ module }) => void (module('week', 3).name = 'wk 3 - Compass'),
        evidence: 'wk 3 - Compass',
      },
      {
        title: 'the number of another week',
        change: ({ module }) =>
          void (module('week', 3).name = 'Week 2 · Sep 14 – Sep 20 · Compass'),
        evidence: '2',
      },
      {
        title: 'the prompt still stands for the topic',
        change: ({ module }) =>
          void (module('week', 3).name = 'Week 3 · Sep 14 – Sep 20 · [topic]'),
        evidence: 'Week 3 · Sep 14 – Sep 20 · [topic]',
      },
    ],
  },
})
