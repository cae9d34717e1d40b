import { z } from 'zod'
import { shortHash } from '../document/index.ts'
import { blockWords } from './blockWords.ts'
import { isWorkedOut, type Plan, type PlanStep } from './plan.ts'

/** One line of what a plan does, alike for every course in which it does the same. */
export const ShapeLine = z.strictObject({
  does: z.enum([
    'create',
    'change',
    'move',
    'adopt',
    'keep',
    'remove',
    'conflict',
    'set',
    'restore',
    'leave',
    'agree',
  ]),
  part: z.string(),
  name: z.string().describe('What it is called in the first course that has it'),
  kind: z.string(),
  field: z.string().nullable().describe('null: the part as a whole'),
  words: z.string().describe('First words of the block it is about; empty: none, or no block'),
  reason: z.string(),
  count: z.number().int().describe('How many repetitions of the part'),
  decided: z.number().int().describe('Of conflicts: how many are decided on'),
})
export type ShapeLine = z.output<typeof ShapeLine>

export interface PlanShape {
  /** Equal for plans that look alike. */
  id: string
  lines: ShapeLine[]
}

const linesOf = (step: PlanStep): Omit<ShapeLine, 'count'>[] => {
  const { part, name, kind } = step
  if (step.fields.length === 0)
    return [
      {
        does: step.does,
        part,
        name,
        kind,
        field: null,
        words: '',
        reason: step.reason,
        decided: 0,
      },
    ]
  return step.fields.map((field) => ({
    does: field.does,
    part,
    name,
    kind,
    field: field.field,
    words: blockWords(field),
    reason: field.reason,
    decided: field.decided === null ? 0 : 1,
  }))
}

/** What a plan looks like once names, dates and ids of the single course are left out: plans of one shape are read once. */
export const planShape = (plan: Plan): PlanShape => {
  if (!isWorkedOut(plan))
    return { id: shortHash(`${plan.state} ${plan.reason.replace(/\d+/g, 'n')}`), lines: [] }
  const lines = new Map<string, ShapeLine>()
  for (const step of plan.steps)
    for (const line of linesOf(step)) {
      const key = JSON.stringify([line.does, line.part, line.field, line.reason])
      const known = lines.get(key)
      if (known) {
        known.count += 1
        known.decided += line.decided
      } else lines.set(key, { ...line, count: 1 })
    }
  const all = [...lines.values()]
  // What is merely kept differs from course to course and changes nothing; names and words are the single course's own.
  return {
    id: shortHash(
      JSON.stringify([
        plan.state,
        all.flatMap((line) =>
          line.does === 'keep' || line.does === 'agree' ? [] : [{ ...line, name: '', words: '' }],
        ),
      ]),
    ),
    lines: all,
  }
}
