import type { Exemptions } from '@wickerframe/core'
import type { Database } from '@wickerframe/storage'
import { attestationRows, attestationOf } from './attestations.ts'
import { byCourse } from '../courses/byCourse.ts'
import { waiverRows, waiverOf } from './waivers.ts'

/** What is waived and attested in each of these courses, as the check takes it; nothing for those in which nothing is. */
export const exemptionsOf = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Exemptions>> => {
  const waivers = byCourse(await waiverRows(database, courseIds))
  const attestations = byCourse(await attestationRows(database, courseIds))
  return new Map(
    [...new Set([...waivers.keys(), ...attestations.keys()])].map((courseId) => [
      courseId,
      {
        waivers: (waivers.get(courseId) ?? [])
          .filter(({ state }) => state === 'approved')
          .map(waiverOf)
          .map(({ id, scope, rule, fingerprint, evidence, from, until, reason }) => ({
            id,
            scope,
            rule,
            fingerprint,
            evidence,
            from,
            until,
            reason,
          })),
        attestations: (attestations.get(courseId) ?? []).map(attestationOf),
      },
    ]),
  )
}
