import { z } from 'zod'
import { jsonSchemaOf } from '../document/index.ts'
import { strengths } from '../template/index.ts'
import { rules } from './registry.ts'
import { ruleGroups } from './rule.ts'

/** The catalogue of rules, as others read it. */
export const RulesDocument = z.strictObject({
  schema: z.literal('wickerframe.rules/1'),
  rules: z.array(
    z.strictObject({
      id: z.string(),
      group: z.enum(ruleGroups),
      title: z.string(),
      why: z.string(),
      strength: z.enum(strengths).describe('Unless a template says otherwise'),
      mender: z.enum(['instructor', 'designer', 'administrator']),
      effortMinutes: z.number(),
      mends: z.boolean().describe('Whether the mend can be worked out'),
      parameters: z
        .record(z.string(), z.json())
        .describe('JSON Schema of its parameters, with their defaults'),
      messages: z.record(z.string(), z.string()),
    }),
  ),
})
export type RulesDocument = z.output<typeof RulesDocument>

export const rulesDocument = (): RulesDocument => ({
  schema: 'wickerframe.rules/1',
  rules: rules.map(
    ({ id, group, title, why, strength, mender, effortMinutes, mend, parameters, messages }) => ({
      id,
      group,
      title,
      why,
      strength,
      mender,
      effortMinutes,
      mends: mend !== undefined,
      parameters: (jsonSchemaOf(id, parameters).properties ??
        {}) as RulesDocument['rules'][number]['parameters'],
      messages: { ...messages },
    }),
  ),
})
