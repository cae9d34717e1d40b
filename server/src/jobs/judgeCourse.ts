import { analyserVersion, checkCourse, weaveColumns, weaveRow, type Check, type CheckResult, type Crossing } from '@wickerframe/core'
import { firstRow, inTransaction, type Database } from '@wickerframe/storage'
import type { Pool } from 'mysql2/promise'
import { digestOf } from '../digest.ts'
import { recordedIdentity } from '../repositories/bases.ts'
import { dispensationsOf, listJoins, listNotThisWeek, settleFollowUps } from '../repositories/care.ts'
import { findCheck, reuseCheck, storeCheck } from '../repositories/checks.ts'
import { findClashes } from '../repositories/cohort.ts'
import { courseHistory } from '../repositories/courseHistory.ts'
import type { StoredCourse } from '../repositories/courses.ts'
import { findSnapshot } from '../repositories/snapshots.ts'
import { engineVersion, expectationOf } from './deploymentPlan.ts'
import { pageFactsIn } from './pageCache.ts'

/** Everything a check of a course is made from, as it is stored; null when it is under no template or was never read. */
export const checkInputs = async (database: Database, stored: StoredCourse, asOf: string, today: string): Promise<Check | null> => {
  const { id } = stored.summary
  const template = await expectationOf(database, stored)
  const snapshot = await findSnapshot(database, id)
  if (!template || !snapshot) return null
  const joins = (await listJoins(database, id)).map(({ what, expected, found }) => ({ what, expected, found }))
  return {
    template, facts: stored.facts, course: snapshot.course, asOf, pageOf: pageFactsIn(snapshot.course), joins, clashes: await findClashes(database, id), history: await courseHistory(database, stored, today, (await recordedIdentity(database, id)).size),
    dispensations: await dispensationsOf(database, id), notThisWeek: await listNotThisWeek(database, id),
  }
}

/**
 * Names the very question that a check answers, without loading what it is about: the digest of the snapshot, the revision
 * of what was deployed (which recorded what), the versions it is judged by and the wording of house texts, its facts, and when what is waived,
 * attested, joined or left out last changed. Null when there is nothing to check.
 */
const questionOf = async (database: Database, stored: StoredCourse, today: string): Promise<string | null> => {
  const { id } = stored.summary
  const state = await firstRow<{ digest: string | null; revision: number | null; judged: string | null; wording: string | null }>(
    database,
    `SELECT (SELECT digest FROM snapshots WHERE course_id = courses.id) AS digest, courses.base_revision AS revision, courses.judged_from AS judged,
            (SELECT CONCAT(COUNT(*), ':', SUM(revision)) FROM library_entries WHERE kind = 'house-text') AS wording
     FROM courses WHERE courses.id = ?`,
    [id],
  )
  if (!state?.digest || stored.templateId === null) return null
  const { templateId, version, brought, strengthsVersion, facts } = stored
  return digestOf({ ...state, templateId, version, brought, strengthsVersion, facts, clashes: await findClashes(database, id), history: await courseHistory(database, stored, today, 0), engine: engineVersion, analyser: analyserVersion })
}

type Judgement =
  | { state: 'no-template' }
  | { state: 'unusable'; reason: string }
  /** The very same question was answered before; that answer is now the latest. */
  | { state: 'known' }
  | { state: 'judged'; key: string; result: CheckResult; crossings: Crossing[] }

/** Checks a course from what is stored of it, unless the very same question was answered before. */
const judgementOf = async (pool: Pool, stored: StoredCourse, asOf: string, today: string): Promise<Judgement> => {
  const key = await questionOf(pool, stored, today)
  if (key === null) return { state: 'no-template' }
  if (await reuseCheck(pool, stored.summary.id, key, asOf)) return { state: 'known' }
  const check = await checkInputs(pool, stored, asOf, today)
  if (!check) return { state: 'no-template' }
  const checked = checkCourse(check)
  if (!checked.ok) return { state: 'unusable', reason: `it cannot be checked: at ${checked.problems[0]?.path}, found ${checked.problems[0]?.found}; expected ${checked.problems[0]?.expected}` }
  return { state: 'judged', key, result: checked.value, crossings: weaveRow(checked.value, check.template, weaveColumns([check.template], stored.facts.weeks)) }
}

const placesOf = (result: CheckResult | null): Set<string> => new Set(result?.findings.flatMap((finding) => finding.places.map((place) => place.fingerprint)))

/** Keeps a judgement, and settles what was raised by what is found now. Findings as of another day than today settle nothing. */
const storeJudgement = async (database: Database, courseId: number, { key, result, crossings }: Extract<Judgement, { state: 'judged' }>, today: string): Promise<void> => {
  await storeCheck(database, courseId, key, result, crossings)
  if (result.asOf === today) await settleFollowUps(database, courseId, async () => placesOf(result))
}

/** An answer known from before is the latest again, and settles as it would if it were new. */
const settleKnown = async (database: Database, courseId: number, asOf: string, today: string): Promise<void> => {
  if (asOf === today) await settleFollowUps(database, courseId, async () => placesOf(await findCheck(database, courseId, today)))
}

/** Judges a course again at once, from what is stored: after a waiver, a join, an attestation. */
export const judgeAgain = async (pool: Pool, stored: StoredCourse, asOf: string, today: string): Promise<Judgement> => {
  const judgement = await judgementOf(pool, stored, asOf, today)
  const { id } = stored.summary
  if (judgement.state === 'judged') await inTransaction(pool, (database) => storeJudgement(database, id, judgement, today))
  else if (judgement.state === 'known') await inTransaction(pool, (database) => settleKnown(database, id, asOf, today))
  return judgement
}
