import type { CourseCare } from '@wickerframe/contract'
import type { Database } from '@wickerframe/storage'
import { listAttestations } from '../waivers/attestations.ts'
import { listFollowUps } from '../followUps/followUps.ts'
import { listJoins } from '../joins/joins.ts'
import { listNotThisWeek } from '../waivers/notThisWeek.ts'
import { listWaivers } from '../waivers/waivers.ts'
import { findCheck, findingsBefore } from '../checks/checks.ts'

/** Joins, waivers, attestations and follow-up of a course, with what differs from its check before. */
export const careOf = async (
  database: Database,
  courseId: number,
  today: string,
): Promise<CourseCare> => {
  const before = await findingsBefore(database, courseId, today)
  const now = before && (await findCheck(database, courseId, today))
  const places = new Set(
    now?.findings.flatMap((finding) => finding.places.map((place) => place.fingerprint)),
  )
  return {
    joins: await listJoins(database, courseId),
    waivers: await listWaivers(database, courseId),
    attestations: await listAttestations(database, courseId),
    followUps: await listFollowUps(database, courseId),
    notThisWeek: await listNotThisWeek(database, courseId),
    since:
      before && now
        ? {
            checkedAt: before.checkedAt,
            fresh: [...places].filter((fingerprint) => !before.places.has(fingerprint)),
            gone: [...before.places]
              .filter(([fingerprint]) => !places.has(fingerprint))
              .map(([, message]) => message),
          }
        : null,
  }
}
