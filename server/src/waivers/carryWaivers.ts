import { change, type Database } from '@wickerframe/storage'
import { markHeldAnew } from '../checks/heldAnew.ts'

/**
 * Takes the waivers that go on in later terms from a course to the one it is carried over to. Repetitions are others there, so
 * that of a place becomes one of its part in its week; that of a place of no part stays behind.
 */
export const carryWaivers = async (
  database: Database,
  source: number,
  course: number,
  today: string,
): Promise<void> => {
  await copyOwn(database, source, course, today)
  await joinLists(database, source, course, today)
  await markHeldAnew(database, course)
}

const goesOn = `state = 'approved' AND carried AND (until_date IS NULL OR until_date >= ?)`

const copyOwn = (database: Database, source: number, course: number, today: string) =>
  change(
    database,
    `INSERT INTO waivers (
       course_id, scope, rule, part, week, from_date, until_date, carried, reason, state, asked_by,
         asked_at, decided_by, decided_at, answer
     )
     SELECT ?, IF(scope = 'rule', 'rule', 'part'), rule, part, week, from_date, until_date, carried,
       reason, state, asked_by, asked_at, decided_by, decided_at, answer
     FROM waivers AS its
     WHERE course_id = ?
       AND ${goesOn}
       AND (scope = 'rule' OR part IS NOT NULL)
       AND NOT EXISTS (
         SELECT 1
         FROM waivers AS known
         WHERE known.course_id = ?
           AND known.carried
           AND known.rule <=> its.rule
           AND known.part <=> its.part
           AND known.week <=> its.week
       )`,
    [course, source, today, course],
  )
const joinLists = (database: Database, source: number, course: number, today: string) =>
  change(
    database,
    `INSERT IGNORE INTO waiver_courses (waiver_id, course_id)
     SELECT waiver_courses.waiver_id, ?
     FROM waiver_courses
     JOIN waivers ON waivers.id = waiver_courses.waiver_id
     WHERE waiver_courses.course_id = ? AND ${goesOn}`,
    [course, source, today],
  )
