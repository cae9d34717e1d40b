import { z } from 'zod'
import { namingFormatOf, type ExpectedPart } from '../../expand/index.ts'
import { readName } from '../../naming/index.ts'
import { isModule } from '../../template/index.ts'
import type { CourseModule } from '../../course/index.ts'
import type { CheckContext } from '../context.ts'
import { defineRule, type Verdict } from '../rule.ts'
import { renameModule } from './nameVerdict.ts'

const numbering = new Set(['week', 'unit', 'number', 'day'])

/** The number a module's name carries, also where the name is in a form of its own; null where it has none. */
const numberSaid = (
  context: CheckContext,
  module: CourseModule,
  part: ExpectedPart,
): number | null => {
  const readings =
    readName(namingFormatOf(part), module.name, {})?.readings ??
    (context.partOf(module.id) === part ? context.judgementOf(part, module.name).fields : [])
  const value = readings.find((reading) => numbering.has(reading.field))?.value
  return typeof value === 'number' ? value : null
}

const numberWanted = (part: ExpectedPart): number =>
  Number(part.values.week ?? part.values.unit ?? part.values.number)

export const numberSequence = defineRule({
  id: 'number-sequence',
  group: 'names',
  title: 'Numbers run without gaps or repeats',
  why: 'Two modules called Week 6 and none called Week 7 send half the class to the wrong one.',
  untold:
    'Modules without a number in their names, two whose numbers were swapped, which are told by their names, and weeks in units that cannot be read.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 1,
  messages: {
    twice: '{count modules} carry the number {number}: {names}.',
    skipped:
      'No module carries the number {number}: “{name}”, which stands in its place, says {seen}.',
  },
  *check(context): Generator<Verdict> {
    for (const definition of context.expected.template.parts) {
      if (!isModule(definition) || !definition.repeat || definition.repeat.per === 'half') continue
      const parts = context.partsOfKey(definition.key)
      if (parts.some((part) => context.awaitsUnits(part))) continue
      const said = context.modules.flatMap((module) => {
        const part = context.partOf(module.id) ?? parts[0]
        const number =
          part && part.key === definition.key ? numberSaid(context, module, part) : null
        return number === null ? [] : [{ module, number }]
      })
      const carriers = (number: number) => said.filter((name) => name.number === number)
      for (const part of parts) {
        const number = numberWanted(part)
        const subject = { about: 'part', part } as const
        const module = context.moduleFor(part)
        const own = said.find((name) => name.module === module)
        // Who stands in the place of another number is told there.
        const beside = carriers(number).filter(
          (name) => name.module === module || context.partOf(name.module.id) === null,
        )
        const doubled =
          own && own.number !== number
            ? carriers(own.number).length > 1
              ? carriers(own.number)
              : []
            : beside.length > 1
              ? beside
              : []
        if (module && own && own.number !== number && carriers(number).length === 0)
          yield {
            subject,
            outcome: 'failed',
            message: 'skipped',
            values: { number: String(number), name: module.name, seen: String(own.number) },
            evidence: [{ kind: 'words', text: module.name }],
            expected: `the number ${number}`,
            itemId: module.id,
          }
        else if (doubled.length > 0)
          yield {
            subject,
            outcome: 'failed',
            message: 'twice',
            values: {
              count: String(doubled.length),
              number: String(doubled[0]?.number),
              names: doubled.map(({ module }) => `“${module.name}”`).join(' and '),
            },
            evidence: doubled.map(({ module }) => ({ kind: 'words', text: module.name }) as const),
            expected: `the number ${number} once`,
            itemId: (own?.number === number ? doubled[1] : own)?.module.id,
          }
        else yield { subject, outcome: 'passed' }
      }
    }
  },
  mend(verdict, context) {
    const { subject } = verdict
    if (subject.about !== 'part') return []
    const module = context.moduleFor(subject.part)
    // Of two of one number, that which should carry it keeps it: the other one’s name is somebody’s to give.
    const isRight =
      module !== null && numberSaid(context, module, subject.part) === numberWanted(subject.part)
    return isRight ? [] : renameModule(context, subject.part)
  },
})
