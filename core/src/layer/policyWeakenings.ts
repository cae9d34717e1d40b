import type { Problem } from '../document/index.ts'
import { rules } from '../rules/index.ts'
import type { Template } from '../template/index.ts'
import { keptFields, rank, same, weakened } from './kept.ts'

type Policy = Template['policies'][number]

/** A rule as a template has it: what it says, and for the rest what the rule itself says. */
const inForce = (policy: Policy | undefined, rule: (typeof rules)[number]) => ({
  off: policy?.off ?? false,
  strength: policy?.strength ?? rule.strength,
  parameters: { ...(rule.parameters.parse({}) as Record<string, unknown>), ...policy?.parameters },
})

/**
 * Where a layer turns a rule off, lowers it, or sets it otherwise than the layer above, which may rely on what the rule itself
 * says.
 */
export const policyWeakenings = (upper: Template, layer: Template): Problem[] => {
  const missing = upper.policies.flatMap((policy): Problem[] =>
    layer.policies.some(({ rule }) => rule === policy.rule)
      ? []
      : [weakened(['policies'], 'nothing', `the rule ${policy.rule} as the layer above sets it`)],
  )
  const changed = layer.policies.flatMap((own, index): Problem[] => {
    const rule = rules.find((rule) => rule.id === own.rule)
    const policy = upper.policies.find((policy) => policy.rule === own.rule)
    // What is no rule of ours is told where it is written.
    if (!rule) return policy ? keptFields(policy, own, ['parameters'], ['policies', index]) : []
    const above = inForce(policy, rule)
    const here = inForce(own, rule)
    const said = policy ? 'the layer above' : 'the rule itself, on which the layer above relies,'
    return [
      ...(here.off && !above.off
        ? [weakened(['policies', index, 'off'], true, `false; ${said} has it on`)]
        : []),
      ...(rank(here.strength) > rank(above.strength)
        ? [
            weakened(
              ['policies', index, 'strength'],
              here.strength,
              `at least ${above.strength}, as ${said} says; a layer may only raise it`,
            ),
          ]
        : []),
      ...Object.entries(above.parameters).flatMap(([name, value]): Problem[] =>
        same(value, here.parameters[name])
          ? []
          : [
              weakened(
                ['policies', index, 'parameters', name],
                here.parameters[name],
                `${JSON.stringify(value)}, as ${said} says`,
              ),
            ],
      ),
    ]
  })
  return [...missing, ...changed]
}
