import { cohortNames, type CohortClash, type Course } from '@wickerframe/core'
import { change, rowsOf, type Database } from '@wickerframe/storage'
import { sha256 } from '../digest.ts'

/** Keeps the names of a course that meet those of others; a name that is gone is forgotten. */
export const storeCohortNames = async (database: Database, courseId: number, course: Course): Promise<void> => {
  await change(database, 'DELETE FROM cohort_names WHERE course_id = ?', [courseId])
  const names = cohortNames(course)
  for (let i = 0; i < names.length; i += 200) {
    const part = names.slice(i, i + 200)
    await change(
      database,
      `INSERT IGNORE INTO cohort_names (course_id, kind, folded_hash, name) VALUES ${part.map(() => '(?, ?, ?, ?)').join(', ')}`,
      part.flatMap(({ kind, name, folded }) => [courseId, kind, sha256(folded), name]),
    )
  }
}

/** Which names of a course other teaching courses of its term carry as well, as far as those were read. */
export const findClashes = async (database: Database, courseId: number): Promise<CohortClash[]> => {
  const rows = await rowsOf<{ kind: CohortClash['kind']; name: string; code: string; title: string; shares: number }>(
    database,
    `SELECT own.kind, own.name, courses.code, courses.title,
            EXISTS (SELECT 1 FROM course_instructors AS mine JOIN course_instructors AS theirs ON theirs.email = mine.email WHERE mine.course_id = own.course_id AND theirs.course_id = other.course_id) AS shares
     FROM cohort_names AS own
     JOIN courses AS self ON self.id = own.course_id
     JOIN cohort_names AS other ON other.folded_hash = own.folded_hash AND other.kind = own.kind AND other.course_id <> own.course_id
     JOIN courses ON courses.id = other.course_id AND courses.term_code = self.term_code AND courses.status = 'teaching'
     WHERE own.course_id = ?
     ORDER BY own.kind, own.name, courses.code, courses.id
     LIMIT 5000`,
    [courseId],
  )
  const clashes = new Map<string, CohortClash>()
  for (const { kind, name, code, title, shares } of rows) {
    const key = `${kind} ${name}`
    const clash = clashes.get(key)
    if (clash) {
      clash.others.push(`${code} ${title}`)
      clash.sharesInstructor ||= shares === 1
    } else clashes.set(key, { kind, name, others: [`${code} ${title}`], sharesInstructor: shares === 1 })
  }
  return [...clashes.values()]
}
