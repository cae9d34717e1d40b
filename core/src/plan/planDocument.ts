import { z } from 'zod'
import { Change } from '../course/index.ts'
import { decisionWords } from './mergeCase.ts'
import { isWorkedOut, type Plan } from './plan.ts'

const StepField = z.strictObject({
  field: z.string().describe('Name of the field; a block is block:KEY; a place is place'),
  does: z.enum(['change', 'keep', 'agree', 'conflict', 'restore', 'leave']),
  base: z.json().describe('As it was last deployed; null: not at all'),
  present: z.json(),
  wanted: z.json(),
  result: z.json().describe('As it will be once the plan was carried out'),
  decided: z.enum(decisionWords).nullable(),
  reason: z.string(),
})
const Step = z.strictObject({
  does: z.enum(['create', 'change', 'move', 'adopt', 'keep', 'remove', 'conflict', 'set']),
  instance: z.string(),
  part: z.string(),
  kind: z.string(),
  name: z.string(),
  into: z.string().nullable(),
  opensAt: z.string().nullable(),
  dueAt: z.string().nullable(),
  reason: z.string(),
  fields: z.array(StepField),
})

/** A plan as the command line prints it. */
export const PlanDocument = z.strictObject({
  schema: z.literal('wickerframe.plan/1'),
  state: z.enum(['ready', 'nothing-to-do', 'left-out', 'unusable']),
  reason: z
    .string()
    .describe('Why the course is left out, or what is missing for a plan; empty otherwise'),
  steps: z.array(Step),
  unchanged: z.number().int().describe('Parts that stay as they are, with nothing to tell of them'),
  undecided: z
    .number()
    .int()
    .describe('Conflicts nobody has decided on; they are left as they are'),
  additive: z.boolean(),
  consequences: z.array(
    z.strictObject({
      code: z.string(),
      count: z.number().int(),
      example: z.string(),
      all: z.array(z.string()),
    }),
  ),
  changes: z.array(Change).describe('The ordered change set for the platform'),
})
export type PlanDocument = z.output<typeof PlanDocument>

export const planDocument = (plan: Plan): PlanDocument => {
  const schema = 'wickerframe.plan/1' as const
  if (!isWorkedOut(plan))
    return {
      schema,
      state: plan.state,
      reason: plan.reason,
      steps: [],
      unchanged: 0,
      undecided: 0,
      additive: false,
      consequences: [],
      changes: [],
    }
  const { state, steps, unchanged, undecided, additive, consequences, changes } = plan
  return {
    schema,
    state,
    reason: '',
    steps: JSON.parse(JSON.stringify(steps)) as PlanDocument['steps'],
    unchanged,
    undecided,
    additive,
    consequences,
    changes,
  }
}
