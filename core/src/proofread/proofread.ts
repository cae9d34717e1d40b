import type { Template } from '../template/index.ts'
import { Proof, type ProofCheck, type Remark } from './remark.ts'
import { proofChecks } from './registry.ts'

const write = (
  check: ProofCheck,
  message: string,
  values: Readonly<Record<string, string>>,
): string => {
  const template = check.messages[message]
  if (template === undefined) throw new Error(`the check ${check.id} has no message “${message}”`)
  return template.replace(/\{(\w+)\}/g, (_, name: string) => values[name] ?? '')
}

/**
 * Proofreads a template: what its readers or its release would stumble over. Errors stop a release, warnings do not.
 * Pure; errors come first, then in the order of the parts.
 */
export const proofread = (template: Template): Remark[] => {
  const proof = new Proof(template)
  const order = new Map(proof.parts.map((part, index) => [part.key, index + 1]))
  const remarks = proofChecks.flatMap((check) =>
    [...check.find(proof)].map((found): Remark => ({
      check: check.id,
      severity: found.severity ?? check.severity,
      part: found.part,
      block: found.block ?? null,
      message: write(check, found.message, found.values ?? {}),
    })),
  )
  const place = (remark: Remark): number =>
    remark.part === null ? -1 : (order.get(remark.part) ?? 0)
  return remarks.sort((a, b) =>
    a.severity === b.severity ? place(a) - place(b) : a.severity === 'error' ? -1 : 1,
  )
}
