import { z } from 'zod'
import { copyMark } from '../../pair/index.ts'
import type { ExpectedPart } from '../../expand/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'
import { twinsIn } from './twins.ts'

export const copyLeftOver = defineRule({
  id: 'copy-left-over',
  group: 'structure',
  title: 'No copies are left over',
  why: 'A forgotten copy beside its original lets students hand in at, or read, the wrong one.',
  untold:
    'A copy that stands in the place of another repetition: it is told as such. “Copy” within a name is a word.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    name: '“{name}” in {module} is still named as a copy.',
    twice: '“{name}” in {module} is a copy of “{original}”, which is there as well.',
  },
  *check(context): Generator<Verdict> {
    const twins = new Set(twinsIn(context).map(({ found }) => found.item.id))
    for (const { item, module } of context.placedItems) {
      if (twins.has(item.id)) continue
      const copy = context.pairing.copies.find((copy) => copy.found === item.id)
      const part = context.partOf(item.id)
      const subject = aboutFound(context, item)
      const values = { name: item.name, module: module ? `“${module.name}”` : 'no module' }
      const failed = {
        subject,
        outcome: 'failed',
        evidence: [{ kind: 'words', text: item.name }],
        expected: 'one of each, under its own name',
        itemId: item.id,
      } as const
      if (copy)
        yield {
          ...failed,
          message: 'twice',
          values: { ...values, original: context.partAt(copy.of)?.name ?? copy.of },
        }
      else if (
        copyMark.test(item.name) &&
        !(part && (copyMark.test(part.name) || isItsNumber(item.name, part)))
      )
        yield { ...failed, message: 'name', values }
      else if (part) yield { subject, outcome: 'passed' }
    }
  },
})

/** Whether the number in brackets at a name's end is that of its own week or repetition. */
const isItsNumber = (name: string, { values }: ExpectedPart): boolean => {
  const number = Number(/\((\d{1,2})\)$/.exec(name)?.[1] ?? Number.NaN)
  return [values.week, values.unit, values.number].includes(number)
}
