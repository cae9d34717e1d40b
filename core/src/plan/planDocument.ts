import { z } from 'zod'
import { Change } from '../course/index.ts'
import { Consequence } from './consequence.ts'
import { isWorkedOut, PlanStep, type Plan } from './plan.ts'

/** A plan as the command line prints it. */
export const PlanDocument = z.strictObject({
  schema: z.literal('wickerframe.plan/1'),
  state: z.enum(['ready', 'nothing-to-do', 'left-out', 'unusable']),
  reason: z
    .string()
    .describe('Why the course is left out, or what is missing for a plan; empty otherwise'),
  steps: z.array(PlanStep),
  unchanged: z.number().int().describe('Parts that stay as they are, with nothing to tell of them'),
  undecided: z
    .number()
    .int()
    .describe('Conflicts nobody has decided on; they are left as they are'),
  additive: z.boolean(),
  consequences: z.array(Consequence),
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
  return { schema, state, reason: '', steps, unchanged, undecided, additive, consequences, changes }
}
