import type { Finding } from '@wickerframe/core'
import type { FollowUp } from '@wickerframe/contract'

/** How far something that was raised is: whoever looks after it sees first what needs most. */
const needsMost: readonly FollowUp['state'][] = [
  'raised',
  'answered',
  'promised',
  'closed',
  'mended',
]

const settled: ReadonlySet<FollowUp['state']> = new Set(['closed', 'mended'])
export const isSettled = ({ state }: FollowUp): boolean => settled.has(state)

/** The places of a finding that are open: what is waived asks nothing of anybody. */
export const openPlaces = ({ places }: Finding): Finding['places'] =>
  places.filter(({ waived }) => !waived)

export interface Followed {
  /** The follow-up that needs most, of all places of the finding. */
  followUp: FollowUp
  /** Places that are followed up and not settled. */
  pending: string[]
}

/** Where a finding stands with those it was raised with, over all its places; null where it never was raised. */
export const followedOf = (finding: Finding, followUps: readonly FollowUp[]): Followed | null => {
  const here = new Set(openPlaces(finding).map(({ fingerprint }) => fingerprint))
  const found = followUps
    .filter(({ fingerprint }) => here.has(fingerprint))
    .sort((a, b) => needsMost.indexOf(a.state) - needsMost.indexOf(b.state))
  const [followUp] = found
  return followUp
    ? {
        followUp,
        pending: found.filter((one) => !isSettled(one)).map(({ fingerprint }) => fingerprint),
      }
    : null
}

/** Open places of a finding that nobody follows up yet. */
export const unraised = (finding: Finding, followUps: readonly FollowUp[]): string[] => {
  const pending = new Set(followedOf(finding, followUps)?.pending)
  return openPlaces(finding)
    .map(({ fingerprint }) => fingerprint)
    .filter((fingerprint) => !pending.has(fingerprint))
}
