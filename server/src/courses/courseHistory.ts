import { daysBetween, localDateOf, type CourseHistory } from '@wickerframe/core'
import { anyOf, rowsOf, type Database } from '@wickerframe/storage'
import { byCourse } from './byCourse.ts'
import type { StoredCourse } from './courses.ts'
import { instantOfRow } from '../moment.ts'

/** How many other courses with a class section of the same name are told of. */
const mostBeside = 20

/**
 * What is known of these courses besides their snapshots: deployments, versions, courses beside them, their age. How many
 * parts were recorded as made is told by what was deployed, and not here.
 */
export const courseHistories = async (
  database: Database,
  courses: readonly StoredCourse[],
  today: string,
): Promise<Map<number, CourseHistory>> => {
  const ids = courses.map((course) => course.summary.id)
  const last = byCourse(await lastDeployments(database, ids))
  const beside = byCourse(await teachingSameClassSection(database, ids))
  const preparing = byCourse(await inPreparation(database, ids))
  return new Map(
    courses.map(({ summary, facts, version }) => {
      const timeZone = facts.term.timeZone
      const at = last.get(summary.id)?.[0]?.at
      const deployed = at === undefined ? null : localDateOf(instantOfRow(at), timeZone)
      return [
        summary.id,
        {
          checkOnly: summary.state === 'checked-only',
          deployedOn: deployed,
          deployedVersion: deployed === null ? null : version,
          newestVersion: summary.template?.newest ?? null,
          recordedParts: 0,
          preparing: preparing.get(summary.id)?.[0]?.name ?? null,
          sameClassSection:
            summary.status === 'teaching'
              ? (beside.get(summary.id) ?? [])
                  .slice(0, mostBeside)
                  .map(({ name, classSection }) => ({ name, classSection }))
              : [],
          readDaysAgo:
            summary.readAt === null
              ? null
              : Math.max(0, daysBetween(localDateOf(summary.readAt, timeZone), today)),
        },
      ]
    }),
  )
}

const lastDeployments = (database: Database, courseIds: readonly number[]) => {
  const ids = anyOf(courseIds)
  return rowsOf<{ course_id: number; at: string }>(
    database,
    `SELECT course_id, MAX(deployed_at) AS \`at\`
     FROM deployments
     WHERE course_id IN ${ids.sql} AND undone_by IS NULL AND mode <> 'undo'
     GROUP BY course_id`,
    ids.values,
  )
}

/** Other teaching courses of the same code and term that have a class section of the same name. */
const teachingSameClassSection = (database: Database, courseIds: readonly number[]) => {
  const ids = anyOf(courseIds)
  return rowsOf<{ course_id: number; name: string; classSection: string }>(
    database,
    `SELECT self.id AS course_id,
       CONCAT(courses.code, ' ', courses.title, ' (', courses.platform_id, ')') AS name,
       theirs.name AS classSection
     FROM courses AS self
     STRAIGHT_JOIN courses FORCE INDEX (courses_by_code)
       ON courses.term_code = self.term_code
       AND courses.code = self.code
       AND courses.status = 'teaching'
       AND courses.id <> self.id
     STRAIGHT_JOIN class_sections AS theirs ON theirs.course_id = courses.id
     STRAIGHT_JOIN class_sections AS own ON own.course_id = self.id AND own.name = theirs.name
     WHERE self.id IN ${ids.sql}
     ORDER BY courses.id, theirs.name`,
    ids.values,
  )
}

/** A course of the same code and term that one of the same people prepares. */
const inPreparation = (database: Database, courseIds: readonly number[]) => {
  const ids = anyOf(courseIds)
  return rowsOf<{ course_id: number; name: string }>(
    database,
    `SELECT self.id AS course_id, MIN(courses.title) AS name
     FROM courses AS self
     STRAIGHT_JOIN courses FORCE INDEX (courses_by_code)
       ON courses.term_code = self.term_code
       AND courses.code = self.code
       AND courses.status = 'preparing'
       AND courses.id <> self.id
     STRAIGHT_JOIN course_people AS theirs ON theirs.course_id = courses.id
     STRAIGHT_JOIN course_people AS mine
       ON mine.course_id = self.id
       AND mine.email = theirs.email
       AND 'assistant' NOT IN (mine.duty, theirs.duty)
     WHERE self.id IN ${ids.sql}
     GROUP BY self.id`,
    ids.values,
  )
}
