import { z } from 'zod'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const moduleMissing = defineRule({
  id: 'module-missing',
  group: 'structure',
  title: 'Every module is there',
  why: 'Students look for a week or a unit where every other course has it, and do not find it.',
  untold:
    'What may be left out, weeks in a break, and weeks in units that cannot be read. A unit whose weeks no other covers is told as missing.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 10,
  messages: {
    missing: '“{name}” is missing. {strength}',
    merged: '“{name}” has no module of its own; what it holds stands in “{into}”.',
  },
  *check(context): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.kind !== 'module') continue
      const subject = aboutPart(part)
      const merged = context.pairing.merged.find(({ expected }) => expected.includes(part.instance))
      if (context.moduleFor(part)) yield { subject, outcome: 'passed' }
      else if (
        part.strength === 'may' ||
        part.inBreak ||
        part.definition.may.remove ||
        context.awaitsUnits(part)
      )
        yield { subject, outcome: 'inapplicable' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: merged ? 'merged' : 'missing',
          values: {
            name: part.name,
            into: (merged && context.moduleById(merged.found)?.name) ?? '',
            strength: part.strength === 'must' ? 'Every course has it.' : 'Courses should have it.',
          },
          evidence: [
            merged
              ? { kind: 'words', text: context.moduleById(merged.found)?.name ?? '' }
              : { kind: 'count', text: `no module for ${part.name}` },
          ],
          expected: `a module “${part.name}”`,
        }
    }
  },
})
