import { addDays } from '../calendar/index.ts'
import type { CheckContext } from '../rules/index.ts'
import { attestationFor, waiverFor, type Exemptions } from './exemption.ts'
import type { OpenRequirement } from './openRequirement.ts'

/** Takes what is waived or attested out of what is open; it stays visible. */
export const applyExemptions = (
  told: readonly OpenRequirement[],
  { waivers, attestations }: Exemptions,
  context: CheckContext,
): void => {
  const asOf = {
    reached: (date: string) => context.reached(date),
    dayAfter: (date: string) => addDays(date, 1),
  }
  const waivedBy = new Map<string, string>()
  for (const { outcome } of told) {
    if (outcome.outcome !== 'failed' && outcome.outcome !== 'cannot-tell') continue
    const attestation = attestationFor(attestations, outcome.rule, outcome.fingerprint, asOf)
    if (attestation) outcome.attestedBy = attestation.id
    else if (outcome.outcome === 'failed') {
      const waiver = waiverFor(waivers, outcome, asOf)
      if (!waiver) continue
      outcome.waivedBy = waiver.id
      waivedBy.set(outcome.fingerprint, waiver.id)
    }
  }
  // What a waived finding tells for others is waived with it.
  for (const { outcome } of told) {
    const teller =
      outcome.toldBy === null || outcome.waivedBy !== undefined
        ? undefined
        : waivedBy.get(outcome.toldBy)
    if (teller !== undefined) outcome.waivedBy = teller
  }
}
