import type { CheckResult, Finding, FindingSpell, ReadinessChange } from '@wickerframe/core'
import { anyOf, change, rowsOf, type Database } from '@wickerframe/storage'
import { byCourse } from '../courses/byCourse.ts'

/** What a check as of today says of a course, to be kept day by day. */
export interface ToldToday {
  courseId: number
  resultId: number
  result: Pick<CheckResult, 'readiness' | 'counts' | 'findings'>
}
type Place = { fingerprint: string; rule: string; strength: Finding['strength']; message: string }

/** Which of these courses’ known results the history was not kept from last: only those tell it anything. */
export const notKept = async (
  database: Database,
  results: ReadonlyMap<number, number>,
): Promise<number[]> => {
  const kept = new Map(
    (await keptResults(database, [...results.keys()])).map((row) => [row.course_id, row.result_id]),
  )
  return [...results].flatMap(([courseId, result]) =>
    kept.get(courseId) === result ? [] : [courseId],
  )
}
const keptResults = (database: Database, courseIds: readonly number[]) => {
  const ids = anyOf(courseIds)
  return rowsOf<{ course_id: number; result_id: number | null }>(
    database,
    `SELECT course_id, result_id
     FROM history_kept
     WHERE course_id IN ${ids.sql}`,
    ids.values,
  )
}
const rememberKept = (database: Database, told: readonly ToldToday[]) =>
  change(
    database,
    `INSERT INTO history_kept (course_id, result_id)
     VALUES ${told.map(() => '(?, ?)').join(', ')}
     ON DUPLICATE KEY UPDATE result_id = VALUES(result_id)`,
    told.flatMap(({ courseId, resultId }) => [courseId, resultId]),
  )

/**
 * Keeps how courses stand today: their readiness where it is another than it was, and the findings that came and went since they
 * were last told. Several checks of one day leave what the last of them told.
 */
export const keepHistory = async (
  database: Database,
  told: readonly ToldToday[],
  today: string,
): Promise<void> => {
  if (told.length === 0) return
  // Two checks of one course at once keep their history one after the other: this row is theirs to wait for.
  await rememberKept(
    database,
    told.toSorted((a, b) => a.courseId - b.courseId),
  )
  const ids = told.map(({ courseId }) => courseId)
  const stood = new Map(
    (await lastReadiness(database, ids, today)).map((row) => [row.course_id, row]),
  )
  await forgetReadiness(database, ids, today)
  await addReadiness(
    database,
    told.filter(({ courseId, result: { readiness, counts } }) => {
      const before = stood.get(courseId)
      return !(
        before?.readiness === readiness &&
        before.open_musts === counts.openMusts &&
        before.open_shoulds === counts.openShoulds
      )
    }),
    today,
  )
  const open = byCourse(await openSpells(database, ids))
  const came: { courseId: number; place: Place }[] = []
  const went: number[] = []
  for (const { courseId, result } of told) {
    const is = openPlaces(result.findings)
    const was = open.get(courseId) ?? []
    const known = new Set(was.map(({ fingerprint }) => fingerprint))
    for (const place of is.values())
      if (!known.has(place.fingerprint)) came.push({ courseId, place })
    for (const { id, fingerprint } of was) if (!is.has(fingerprint)) went.push(id)
  }
  if (went.length > 0) await endSpells(database, went, today)
  for (let from = 0; from < came.length; from += rowsAtOnce)
    await beginSpells(database, came.slice(from, from + rowsAtOnce), today)
}

const rowsAtOnce = 500

const openPlaces = (findings: readonly Finding[]): Map<string, Place> =>
  new Map(
    findings.flatMap(({ rule, strength, places }) =>
      strength === 'may'
        ? []
        : places.flatMap(({ fingerprint, message, waived }) =>
            waived ? [] : [[fingerprint, { fingerprint, rule, strength, message }] as const],
          ),
    ),
  )

/** The last change of each of these courses on a day before. */
const lastReadiness = (database: Database, courseIds: readonly number[], today: string) => {
  const ids = anyOf(courseIds)
  return rowsOf<{ course_id: number; readiness: string; open_musts: number; open_shoulds: number }>(
    database,
    `SELECT course_id, readiness, open_musts, open_shoulds
     FROM readiness_changes
     WHERE course_id IN ${ids.sql}
       AND day = (
         SELECT MAX(earlier.day)
         FROM readiness_changes AS earlier
         WHERE earlier.course_id = readiness_changes.course_id AND earlier.day < ?
       )`,
    [...ids.values, today],
  )
}
const forgetReadiness = (database: Database, courseIds: readonly number[], today: string) => {
  const ids = anyOf(courseIds)
  return change(
    database,
    `DELETE FROM readiness_changes
     WHERE course_id IN ${ids.sql} AND day >= ?`,
    [...ids.values, today],
  )
}
const addReadiness = async (
  database: Database,
  told: readonly ToldToday[],
  today: string,
): Promise<void> => {
  if (told.length === 0) return
  await change(
    database,
    `INSERT INTO readiness_changes (course_id, day, readiness, open_musts, open_shoulds)
     VALUES ${told.map(() => '(?, ?, ?, ?, ?)').join(', ')}
     ON DUPLICATE KEY UPDATE readiness = VALUES(readiness), open_musts = VALUES(open_musts),
       open_shoulds = VALUES(open_shoulds)`,
    told.flatMap(({ courseId, result: { readiness, counts } }) => [
      courseId,
      today,
      readiness,
      counts.openMusts,
      counts.openShoulds,
    ]),
  )
}
const openSpells = (database: Database, courseIds: readonly number[]) => {
  const ids = anyOf(courseIds)
  return rowsOf<{ id: number; course_id: number; fingerprint: string }>(
    database,
    `SELECT id, course_id, fingerprint
     FROM finding_spells
     WHERE course_id IN ${ids.sql} AND went IS NULL
     FOR UPDATE`,
    ids.values,
  )
}
const beginSpells = (
  database: Database,
  came: readonly { courseId: number; place: Place }[],
  today: string,
) =>
  change(
    database,
    `INSERT INTO finding_spells (course_id, fingerprint, rule, strength, message, came)
     VALUES ${came.map(() => '(?, ?, ?, ?, ?, ?)').join(', ')}`,
    came.flatMap(({ courseId, place: { fingerprint, rule, strength, message } }) => [
      courseId,
      fingerprint,
      rule,
      strength,
      message.slice(0, 2000),
      today,
    ]),
  )
const endSpells = (database: Database, spells: readonly number[], today: string) => {
  const ids = anyOf(spells)
  return change(
    database,
    `UPDATE finding_spells
     SET went = ?
     WHERE id IN ${ids.sql} AND went IS NULL`,
    [today, ...ids.values],
  )
}

/** Every change of how these courses stood, by course, the earliest first. */
export const listReadiness = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, ReadinessChange[]>> => {
  const ids = anyOf(courseIds)
  const rows = await rowsOf<{
    course_id: number
    day: string
    readiness: CheckResult['readiness']
    open_musts: number
    open_shoulds: number
  }>(
    database,
    `SELECT course_id, day, readiness, open_musts, open_shoulds
     FROM readiness_changes
     WHERE course_id IN ${ids.sql}
     ORDER BY course_id, day`,
    ids.values,
  )
  return new Map(
    [...byCourse(rows)].map(([courseId, of]) => [
      courseId,
      of.map(({ day, readiness, open_musts, open_shoulds }) => ({
        day,
        readiness,
        openMusts: open_musts,
        openShoulds: open_shoulds,
      })),
    ]),
  )
}

/** When findings of a course came and went, what is still found first, then what went last. */
export const listSpells = (
  database: Database,
  courseId: number,
  most: number,
): Promise<FindingSpell[]> =>
  rowsOf(
    database,
    `SELECT fingerprint, rule, strength, message, came, went
     FROM finding_spells
     WHERE course_id = ?
     ORDER BY went IS NOT NULL, went DESC, came DESC, id
     LIMIT ?`,
    [courseId, String(most)],
  )
