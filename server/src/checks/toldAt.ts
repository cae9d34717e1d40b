import type { Finding, FindingPlace, Outcome } from '@wickerframe/core'
import { inTransaction, type Database } from '@wickerframe/storage'
import { checkAgain } from './checkStored.ts'
import { markHeldAnew } from './heldAnew.ts'
import { findCheck } from './checks.ts'
import type { StoredCourse } from '../courses/courses.ts'
import { notFound } from '../http/problem.ts'
import { type AboutCourse } from '../courses/routes.ts'

export interface ToldAt {
  finding: Finding | null
  place: FindingPlace | null
  outcome: Outcome
}

/** What the latest check told at a fingerprint. @throws HttpProblem 404 when it tells nothing there */
export const toldAt = async (
  { pool, today, query }: AboutCourse,
  courseId: number,
  fingerprint: string,
): Promise<ToldAt> => {
  const result = await findCheck(pool, courseId, query.asOf ?? today)
  const outcome = result?.outcomes.find((outcome) => outcome.fingerprint === fingerprint)
  if (!result || !outcome)
    throw notFound('finding in the latest check of the course; check it again')
  const finding =
    result.findings.find((finding) =>
      finding.places.some((place) => place.fingerprint === fingerprint),
    ) ?? null
  return {
    outcome,
    finding,
    place: finding?.places.find((place) => place.fingerprint === fingerprint) ?? null,
  }
}

/** Keeps a change of what a course is held to, and checks it again at once. */
export const andCheckAgain = async (
  handling: AboutCourse,
  stored: StoredCourse,
  keep: (database: Database) => Promise<void>,
): Promise<{}> => {
  const { pool, today, query } = handling
  await inTransaction(pool, async (database) => {
    await keep(database)
    await markHeldAnew(database, stored.summary.id)
  })
  await checkAgain(pool, stored, today, today)
  const asOf = query.asOf ?? today
  if (asOf !== today) await checkAgain(pool, stored, asOf, today)
  return {}
}
