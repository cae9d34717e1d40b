import { analyserVersion, checkCourse, weaveColumns, weaveRow, type Check, type CheckResult, type Crossing } from '@wickerframe/core'
import { inTransaction, type Database } from '@wickerframe/storage'
import type { Pool } from 'mysql2/promise'
import { digestOf, digestOfMade } from '../digest.ts'
import { dispensationsOf, listJoins, listNotThisWeek, settleFollowUps } from '../repositories/care.ts'
import { reuseCheck, storeCheck } from '../repositories/checks.ts'
import { findClashes } from '../repositories/cohort.ts'
import { courseHistory } from '../repositories/courseHistory.ts'
import type { StoredCourse } from '../repositories/courses.ts'
import { findSnapshot } from '../repositories/snapshots.ts'
import { engineVersion, expectationOf } from './deploymentPlan.ts'
import { keptPageFacts } from './pageCache.ts'

/** Everything a check of a course is made from, as it is stored; null when it is under no template or was never read. */
export const checkInputs = async (database: Database, stored: StoredCourse, asOf: string, today: string): Promise<{ check: Check; key: string } | null> => {
  const { id } = stored.summary
  const template = await expectationOf(database, stored)
  const snapshot = await findSnapshot(database, id)
  if (!template || !snapshot) return null
  const clashes = await findClashes(database, id)
  const history = await courseHistory(database, stored, today)
  const joins = (await listJoins(database, id)).map(({ what, expected, found }) => ({ what, expected, found }))
  const dispensations = await dispensationsOf(database, id)
  const notThisWeek = await listNotThisWeek(database, id)
  const identity = JSON.stringify(snapshot.course, (field, value: unknown) => (field === 'html' || field === 'readAt' || field === 'revision' ? undefined : value))
  return {
    check: { template, facts: stored.facts, course: snapshot.course, asOf, pageOf: keptPageFacts, clashes, history, joins, dispensations, notThisWeek },
    key: digestOf({ clashes, history, joins, dispensations, notThisWeek, template: digestOfMade(template), facts: stored.facts, snapshot: snapshot.digest, identity, engine: engineVersion, analyser: analyserVersion }),
  }
}

export type Judgement =
  | { state: 'no-template' }
  | { state: 'unusable'; reason: string }
  /** The very same question was answered before; that answer is now the latest. */
  | { state: 'known' }
  | { state: 'judged'; key: string; result: CheckResult; crossings: Crossing[] }

/** Checks a course from what is stored of it, unless the very same question was answered before. */
export const judgeCourse = async (pool: Pool, stored: StoredCourse, asOf: string, today: string): Promise<Judgement> => {
  const inputs = await checkInputs(pool, stored, asOf, today)
  if (!inputs) return { state: 'no-template' }
  if (await reuseCheck(pool, stored.summary.id, inputs.key, asOf)) return { state: 'known' }
  const checked = checkCourse(inputs.check)
  if (!checked.ok) return { state: 'unusable', reason: `it cannot be checked: at ${checked.problems[0]?.path}, found ${checked.problems[0]?.found}; expected ${checked.problems[0]?.expected}` }
  return { state: 'judged', key: inputs.key, result: checked.value, crossings: weaveRow(checked.value, inputs.check.template, weaveColumns([inputs.check.template], stored.facts.weeks)) }
}

/** Keeps a judgement, and settles what was raised by what is found now. Findings as of another day than today settle nothing. */
export const storeJudgement = async (database: Database, courseId: number, { key, result, crossings }: Extract<Judgement, { state: 'judged' }>, today: string): Promise<void> => {
  await storeCheck(database, courseId, key, result, crossings)
  if (result.asOf === today) await settleFollowUps(database, courseId, new Set(result.findings.flatMap((finding) => finding.places.map((place) => place.fingerprint))))
}

/** Judges a course again at once, from what is stored: after a waiver, a join, an attestation. */
export const judgeAgain = async (pool: Pool, stored: StoredCourse, asOf: string, today: string): Promise<void> => {
  const judgement = await judgeCourse(pool, stored, asOf, today)
  if (judgement.state === 'judged') await inTransaction(pool, (database) => storeJudgement(database, stored.summary.id, judgement, today))
}
