import { z } from 'zod'
import { isModule } from '../../template/index.ts'
import { formatOf, readName } from '../../naming/index.ts'
import { defineRule, type Verdict } from '../rule.ts'
import { moduleFormat } from './module-name.ts'

export const numberSequence = defineRule({
  id: 'number-sequence',
  group: 'names',
  title: 'Numbers run without gaps or repeats',
  why: 'Two modules called Week 6 and none called Week 7 send half the class to the wrong one.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 1,
  messages: { twice: '{count} modules carry the number {number}: {names}.' },
  *check(context): Generator<Verdict> {
    for (const definition of context.expected.template.parts) {
      if (!isModule(definition) || !definition.repeat) continue
      const parts = context.parts.filter((part) => part.key === definition.key)
      const numberOf = (name: string, format: string): string | null =>
        readName(formatOf(format), name, {})?.readings.find((one) => one.field === 'week' || one.field === 'unit' || one.field === 'number')?.text ?? null
      const said = context.modules.flatMap((module) => {
        const part = context.partOf(module.id) ?? parts[0]
        const number = part ? numberOf(module.name, moduleFormat(part)) : null
        return number === null ? [] : [{ module, number: Number(number) }]
      })
      for (const part of parts) {
        const number = Number(part.values.week ?? part.values.unit ?? part.values.number)
        const same = said.filter((one) => one.number === number)
        const subject = { about: 'part', part } as const
        if (same.length <= 1) yield { subject, outcome: 'passed' }
        else
          yield {
            subject,
            outcome: 'failed',
            message: 'twice',
            values: { count: String(same.length), number: String(number), names: same.map((one) => `“${one.module.name}”`).join(' and ') },
            evidence: same.map((one) => ({ kind: 'words', text: one.module.name }) as const),
            expected: `the number ${number} once`,
            itemId: same[1]?.module.id,
          }
      }
    }
  },
  examples: {
    passes: [
      { title: 'numbers 1 to 8', change: () => {} },
      { title: 'a number inside a topic is no number of a week', change: ({ module }) => void (module('week', 3).name = 'Week 3 · Sep 14 – Sep 20 · Week 2 looked at again') },
    ],
    fails: [
      { title: 'two modules numbered 2', change: ({ module }) => void (module('week', 3).name = 'Week 2 · Sep 14 – Sep 20 · Compass'), evidence: 'Week 2 · Sep 7 – Sep 13 · Leading marks' },
      { title: 'a copied week beside its original', change: ({ course, module }) => void course.modules.push({ ...module('week', 4), id: 'again', items: [], recordedAs: undefined }), evidence: 'Week 4 · Sep 21 – Sep 27 · Tides' },
    ],
  },
})
