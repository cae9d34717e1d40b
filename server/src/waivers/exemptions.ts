import type { Exemptions } from '@wickerframe/core'
import type { Database } from '@wickerframe/storage'
import { attestationRows, attestationOf } from './attestations.ts'
import { byCourse } from '../courses/byCourse.ts'
import { waiverRows, waiverOf } from './waivers.ts'
import { wideWaiverRows } from './wideWaivers.ts'

/** What is waived and attested in each of these courses, as the check takes it; nothing for those in which nothing is. */
export const exemptionsOf = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Exemptions>> => {
  const own = byCourse(await waiverRows(database, courseIds))
  const wide = byCourse(await wideWaiverRows(database, courseIds))
  const attestations = byCourse(await attestationRows(database, courseIds))
  return new Map(
    [...new Set([...own.keys(), ...wide.keys(), ...attestations.keys()])].map((courseId) => [
      courseId,
      {
        waivers: [...(own.get(courseId) ?? []), ...(wide.get(courseId) ?? [])]
          .filter(({ state }) => state === 'approved')
          .map(waiverOf)
          .map(({ id, scope, rule, part, week, fingerprint, evidence, from, until, reason }) => ({
            id,
            scope,
            rule,
            part,
            week,
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
