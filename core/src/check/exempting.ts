import { addDays } from '../calendar/index.ts'
import type { CheckContext } from '../rules/index.ts'
import { attestationFor, waiverFor, type Exemptions } from './exemption.ts'
import type { OpenRequirement } from './openRequirement.ts'
import type { Outcome } from './outcome.ts'
import { settledByWord } from './settledByWord.ts'

/**
 * Takes what is waived or attested out of what is open; it stays visible. A word given while a thing could not be told does not
 * hold against what is seen later.
 */
export const applyExemptions = (
  told: readonly OpenRequirement[],
  { waivers, attestations }: Exemptions,
  context: CheckContext,
): void => {
  const asOf = {
    reached: (date: string) => context.reached(date),
    dayAfter: (date: string) => addDays(date, 1),
  }
  const failed = new Map<string, Outcome>()
  for (const { outcome } of told) {
    if (outcome.outcome !== 'failed' && outcome.outcome !== 'cannot-tell') continue
    const attestation = settledByWord(outcome)
      ? attestationFor(attestations, outcome.rule, outcome.fingerprint, asOf)
      : null
    if (attestation) outcome.attestedBy = attestation.id
    else if (outcome.outcome === 'failed') {
      failed.set(outcome.fingerprint, outcome)
      const waiver = waiverFor(waivers, outcome, asOf)
      if (waiver) outcome.waivedBy = waiver.id
    }
  }
  // What a waived finding tells for others is waived with it, and what those tell.
  const waivedBy = ({ waivedBy: own, toldBy }: Outcome): string | undefined => {
    if (own !== undefined || toldBy === null) return own
    const teller = failed.get(toldBy)
    return teller && waivedBy(teller)
  }
  for (const { outcome } of told) {
    const waiver = outcome.outcome === 'failed' ? waivedBy(outcome) : undefined
    if (waiver !== undefined) outcome.waivedBy = waiver
  }
}
