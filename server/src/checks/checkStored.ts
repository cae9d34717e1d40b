import {
  analyserVersion,
  checkCourse,
  checkVersion,
  rememberOf,
  crossingsOf,
  type Check,
  type CheckResult,
  type CohortClash,
  type CourseHistory,
  type Crossings,
  type Term,
} from '@wickerframe/core'
import { inTransaction, type Database } from '@wickerframe/storage'
import type { Pool } from 'mysql2/promise'
import { digestOf, digestOfMade } from '../digest.ts'
import { exemptionsOf } from '../waivers/exemptions.ts'
import { settleFollowUps } from '../followUps/followUps.ts'
import { joinsOf } from '../joins/joins.ts'
import { notThisWeekOf } from '../waivers/notThisWeek.ts'
import { findCheck, storeChecks } from './checks.ts'
import { keepHistory, notKept, type ToldToday } from '../history/keptHistory.ts'
import { checkStamps, reuseChecks } from './reusedChecks.ts'
import { findClashes } from '../courses/cohort.ts'
import { courseHistories } from '../courses/courseHistory.ts'
import type { StoredCourse } from '../courses/courses.ts'
import { findSnapshots } from '../snapshots/snapshots.ts'
import { engineVersion, expectationOf } from '../rollouts/deploymentPlan.ts'
import { pageFactsIn } from '../snapshots/pageCache.ts'

const idOf = (stored: StoredCourse): number => stored.summary.id

/** What is known of a course from others, and of what befell it. */
interface Surroundings {
  clashes: CohortClash[]
  /** Without how many parts its deployments recorded, which what was deployed tells. */
  history: CourseHistory | null
}

const surroundingsOf = async (
  database: Database,
  courses: readonly StoredCourse[],
  today: string,
): Promise<Map<number, Surroundings>> => {
  const clashes = await findClashes(database, courses.map(idOf))
  const histories = await courseHistories(database, courses, today)
  return new Map(
    courses.map((stored) => [
      idOf(stored),
      { clashes: clashes.get(idOf(stored)) ?? [], history: histories.get(idOf(stored)) ?? null },
    ]),
  )
}

/** Everything checks of these courses are made from, as it is stored; nothing for those under no template or never read. */
const inputsOf = async (
  database: Database,
  courses: readonly StoredCourse[],
  asOf: string,
  surroundings: ReadonlyMap<number, Surroundings>,
): Promise<Map<number, Check>> => {
  const ids = courses.map(idOf)
  const snapshots = await findSnapshots(database, ids)
  const joins = await joinsOf(database, ids)
  const exemptions = await exemptionsOf(database, ids)
  const notThisWeek = await notThisWeekOf(database, ids)
  const inputs = new Map<number, Check>()
  for (const stored of courses) {
    const id = idOf(stored)
    const template = await expectationOf(database, stored)
    const snapshot = snapshots.get(id)
    if (!template || !snapshot) continue
    const { clashes = [], history = null } = surroundings.get(id) ?? {}
    const care = exemptions.get(id)
    inputs.set(id, {
      template,
      facts: stored.facts,
      course: snapshot.course,
      asOf,
      pageOf: pageFactsIn(snapshot),
      joins: joins.get(id) ?? [],
      clashes,
      history: history && { ...history, recordedParts: snapshot.recordedParts },
      ...(care ? { exemptions: care } : {}),
      notThisWeek: notThisWeek.get(id) ?? [],
    })
  }
  return inputs
}

/** Everything checks of these courses are made from; nothing for those under no template or never read. */
export const checkInputsOf = async (
  database: Database,
  courses: readonly StoredCourse[],
  asOf: string,
  today: string,
): Promise<Map<number, Check>> =>
  inputsOf(database, courses, asOf, await surroundingsOf(database, courses, today))

/** Everything a check of a course is made from; null when it is under no template or was never read. */
export const checkInputs = async (
  database: Database,
  stored: StoredCourse,
  asOf: string,
  today: string,
): Promise<Check | null> =>
  (await checkInputsOf(database, [stored], asOf, today)).get(idOf(stored)) ?? null

const digestOfTerm = rememberOf((term: Term) => digestOf(term))

/**
 * Names the very questions that checks of these courses answer, without loading what they are about: the digest of the snapshot, the
 * revision of what was deployed (which recorded what), the versions a course is held to and the wording of house texts, its facts, and when
 * what is waived, attested, joined or left out last changed. No question for a course when there is nothing to check.
 */
const questionsOf = async (
  database: Database,
  courses: readonly StoredCourse[],
  surroundings: ReadonlyMap<number, Surroundings>,
): Promise<Map<number, string>> => {
  const states = await checkStamps(database, courses.map(idOf))
  const asked = courses.filter(
    (stored) => stored.templateId !== null && states.get(idOf(stored))?.digest,
  )
  return new Map(
    asked.map((stored) => {
      const id = idOf(stored)
      const { templateId, version, partsTaken, strengthsVersion } = stored
      const { term, nextTerm, ...facts } = stored.facts
      const terms = [digestOfTerm(term), nextTerm ? digestOfTerm(nextTerm) : null]
      return [
        id,
        digestOfMade({
          ...states.get(id),
          templateId,
          version,
          partsTaken,
          strengthsVersion,
          facts,
          terms,
          ...surroundings.get(id),
          engine: engineVersion,
          analyser: analyserVersion,
          check: checkVersion,
        }),
      ]
    }),
  )
}

type CheckMade =
  | { state: 'no-template' }
  | { state: 'unusable'; reason: string }
  /** Something failed on the way; it may be asked again. */
  | { state: 'failed'; message: string }
  /** The very same question was answered before; that answer is now the latest. */
  | { state: 'known'; resultId: number }
  | Checked
interface Checked {
  state: 'checked'
  key: string
  result: CheckResult
  crossings: Crossings
}

const checkMadeOf = (check: Check, key: string): CheckMade => {
  try {
    const checked = checkCourse(check)
    if (!checked.ok)
      return {
        state: 'unusable',
        reason: `it cannot be checked: at ${checked.problems[0]?.path}, found ${checked.problems[0]?.found}; expected ${checked.problems[0]?.expected}`,
      }
    return {
      state: 'checked',
      key,
      result: checked.value,
      crossings: crossingsOf(checked.value, check.template),
    }
  } catch (cause) {
    // One course that trips the check must not keep the others from being checked.
    return { state: 'failed', message: cause instanceof Error ? cause.message : String(cause) }
  }
}

const placesOf = (result: CheckResult | null): Set<string> =>
  new Set(result?.findings.flatMap((finding) => finding.places.map((place) => place.fingerprint)))

/** Results are written in chunks of so many, each about 60 kB. */
const storedTogether = 16

/**
 * Keeps checks that were made, and settles what was raised by what is found now; an answer known from before settles as it would if it
 * were new. Findings as of another day than today settle nothing.
 */
const storeChecksMade = async (
  database: Database,
  checksMade: ReadonlyMap<number, CheckMade>,
  asOf: string,
  today: string,
): Promise<void> => {
  const stored = await storeChecks(
    database,
    [...checksMade].flatMap(([courseId, one]) =>
      one.state === 'checked'
        ? [{ courseId, cacheKey: one.key, result: one.result, crossings: one.crossings }]
        : [],
    ),
  )
  if (asOf !== today) return
  const told = [...checksMade].flatMap(([courseId, { state }]) =>
    state === 'checked' || state === 'known' ? [courseId] : [],
  )
  const resultIn = async (courseId: number): Promise<CheckResult | null> => {
    const made = checksMade.get(courseId)
    return made?.state === 'checked' ? made.result : findCheck(database, courseId, today)
  }
  await settleFollowUps(database, told, async (courseId) => placesOf(await resultIn(courseId)))
  const known = new Map(
    [...checksMade].flatMap(([courseId, made]) =>
      made.state === 'known' ? [[courseId, made.resultId] as const] : [],
    ),
  )
  const anew = new Set(known.size > 0 ? await notKept(database, known) : [])
  const toKeep: ToldToday[] = []
  for (const courseId of told) {
    if (known.has(courseId) && !anew.has(courseId)) continue
    const resultId = stored.get(courseId) ?? known.get(courseId)
    const result = await resultIn(courseId)
    if (result && resultId !== undefined) toKeep.push({ courseId, resultId, result })
  }
  await keepHistory(database, toKeep, today)
}

/**
 * Checks courses from what is stored of them and keeps the answers; a question that was answered before is not worked out
 * again. What is asked of the database is asked for all of them together.
 */
export const checkCourses = async (
  pool: Pool,
  courses: readonly StoredCourse[],
  asOf: string,
  today: string,
): Promise<Map<number, CheckMade>> => {
  const surroundings = await surroundingsOf(pool, courses, today)
  const keys = await questionsOf(pool, courses, surroundings)
  const known = await reuseChecks(pool, keys, asOf)
  const checksMade = new Map<number, CheckMade>(
    courses.map((stored) => {
      const resultId = known.get(idOf(stored))
      return [
        idOf(stored),
        resultId === undefined ? { state: 'no-template' } : { state: 'known', resultId },
      ]
    }),
  )
  if (known.size > 0)
    await inTransaction(pool, (database) => storeChecksMade(database, checksMade, asOf, today))
  const fresh = courses.filter((stored) => keys.has(idOf(stored)) && !known.has(idOf(stored)))
  for (let i = 0; i < fresh.length; i += storedTogether) {
    const inputs = await inputsOf(pool, fresh.slice(i, i + storedTogether), asOf, surroundings)
    const checked = new Map(
      [...inputs].map(([id, check]) => [id, checkMadeOf(check, keys.get(id) ?? '')]),
    )
    await inTransaction(pool, (database) => storeChecksMade(database, checked, asOf, today))
    for (const [id, made] of checked) checksMade.set(id, made)
  }
  return checksMade
}

/** Checks a course again at once, from what is stored: after a waiver, a join, an attestation. @throws Error when the check fails */
export const checkAgain = async (
  pool: Pool,
  stored: StoredCourse,
  asOf: string,
  today: string,
): Promise<void> => {
  const made = (await checkCourses(pool, [stored], asOf, today)).get(idOf(stored))
  if (made?.state === 'failed') throw new Error(made.message)
}
