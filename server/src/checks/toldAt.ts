import type { FindingPlace, Outcome } from '@wickerframe/core'
import { inTransaction, type Database } from '@wickerframe/storage'
import { checkAgain } from './checkStored.ts'
import { markHeldAnew } from './heldAnew.ts'
import { findCheck } from './checks.ts'
import type { StoredCourse } from '../courses/courses.ts'
import { notFound } from '../http/problem.ts'
import { type AboutCourse } from '../courses/routes.ts'

export interface ToldAt {
  place: FindingPlace | null
  outcome: Outcome
}

/** What the latest check told at a fingerprint. @throws HttpProblem 404 when it tells nothing there */
export const toldAt = async (
  handling: AboutCourse,
  courseId: number,
  fingerprint: string,
): Promise<ToldAt> => {
  const [told] = await toldAtAll(handling, courseId, new Set([fingerprint]))
  if (!told) throw notTold()
  return told
}

/** What the latest check told at each of these fingerprints. @throws HttpProblem 404 when it tells nothing at one of them */
export const toldAtAll = async (
  { pool, today, query }: AboutCourse,
  courseId: number,
  fingerprints: ReadonlySet<string>,
): Promise<ToldAt[]> => {
  const result = await findCheck(pool, courseId, query.asOf ?? today)
  const outcomes = new Map(result?.outcomes.map((outcome) => [outcome.fingerprint, outcome]))
  const places = new Map(
    result?.findings.flatMap((finding) =>
      finding.places.map((place) => [place.fingerprint, place] as const),
    ),
  )
  return [...fingerprints].map((fingerprint) => {
    const outcome = outcomes.get(fingerprint)
    if (!outcome) throw notTold()
    return { outcome, place: places.get(fingerprint) ?? null }
  })
}

const notTold = () => notFound('finding in the latest check of the course; check it again')

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
