import { rolesInWords, type PersonEntry } from '@wickerframe/contract'
import { change, institutionNow, rowsOf, type Database, holding } from '@wickerframe/storage'
import { renameIn, traces } from './traces.ts'

/** What somebody is called after they have left: what they were, and a number by which they stay one and the same person. */
export const formerName = ({ id, roles }: Pick<PersonEntry, 'id' | 'roles'>): string =>
  `a former ${roles.length > 0 ? rolesInWords(roles) : 'member'} (${id})`

/**
 * Takes somebody out of everything that is kept: nobody signs in as them, what says who did something says `a former designer`,
 * and what was about them alone goes. What they wrote into courses and templates stays, for it is not about them.
 * @returns what they are called from now on
 */
export const takeOut = async (database: Database, person: PersonEntry): Promise<string> => {
  const { id, email, name } = person
  const as = formerName(person)
  const names = new Set([name, ...(await namesInCourses(database, email))])
  await nameTeacher(database, email, as)
  for (const trace of traces) await renameIn(database, trace, email, as)
  for (const table of ['sessions', 'known_devices', 'one_time_links', 'outside_identities'])
    await forgetIn(database, table, id)
  await forgetMessages(database, email)
  await forgetRequests(database, email)
  await forgetTries(database, email)
  await cleanAuditOfThem(database, email)
  // A name is replaced where it is a value by itself only: as a word it may be anything.
  for (const [word, instead] of [
    [email, as],
    ...[...names].map((known) => [JSON.stringify(known), JSON.stringify(as)] as const),
  ] as const) {
    await cleanAudit(database, word, instead)
    await cleanMerges(database, word, instead)
    await cleanResults(database, word, instead, as)
  }
  await cleanPerson(database, id, as)
  return as
}

/** What rosters call them, which may be another name than the one they gave themselves. */
const namesInCourses = async (database: Database, email: string): Promise<string[]> =>
  (
    await rowsOf<{ name: string }>(
      database,
      `SELECT DISTINCT name
       FROM course_people
       WHERE email = ?`,
      [email],
    )
  ).map((row) => row.name)
const nameTeacher = (database: Database, email: string, as: string) =>
  change(
    database,
    `UPDATE course_people
     SET name = ?
     WHERE email = ?`,
    [as, email],
  )
const forgetIn = (database: Database, table: string, id: number) =>
  change(
    database,
    `DELETE FROM ${table}
     WHERE person_id = ?`,
    [id],
  )
const forgetMessages = (database: Database, email: string) =>
  change(
    database,
    `DELETE FROM messages
     WHERE recipient = ?`,
    [email],
  )
const forgetRequests = (database: Database, email: string) =>
  change(
    database,
    `DELETE FROM account_requests
     WHERE email = ?`,
    [email],
  )
const forgetTries = (database: Database, email: string) =>
  change(
    database,
    `DELETE FROM sign_in_tries
     WHERE scope = 'account' AND name = ?`,
    [email],
  )
/** What was done to their account, without what it was changed from and to. */
const cleanAuditOfThem = (database: Database, email: string) =>
  change(
    database,
    `UPDATE audit
     SET from_value = NULL, to_value = NULL
     WHERE subject = ?`,
    [email],
  )
const cleanAudit = (database: Database, word: string, as: string) =>
  change(
    database,
    `UPDATE audit
     SET subject = LEFT(REPLACE(subject, ?, ?), 200), from_value = REPLACE(from_value, ?, ?),
       to_value = REPLACE(to_value, ?, ?)
     WHERE subject LIKE ? OR from_value LIKE ? OR to_value LIKE ?`,
    [word, as, word, as, word, as, holding(word), holding(word), holding(word)],
  )
const cleanMerges = (database: Database, word: string, as: string) =>
  change(
    database,
    `UPDATE merges
     SET before_merge = REPLACE(before_merge, ?, ?)
     WHERE before_merge LIKE ?`,
    [word, as, holding(word)],
  )
/** In results of courses that they teach; their owner was named in them. */
const cleanResults = (database: Database, word: string, instead: string, teacher: string) =>
  change(
    database,
    `UPDATE check_results
     SET findings = REPLACE(findings, ?, ?), gist = REPLACE(gist, ?, ?), rest = REPLACE(rest, ?, ?),
       outlook = REPLACE(outlook, ?, ?), rewritten = UUID()
     WHERE course_id IN (SELECT course_id FROM course_people WHERE email = ?)`,
    [word, instead, word, instead, word, instead, word, instead, teacher],
  )
/** The row stays, so that its number names nobody else; with an address that nobody has. */
const cleanPerson = (database: Database, id: number, as: string) =>
  change(
    database,
    `UPDATE people
     SET email = ?, name = ?, password_hash = NULL, preferences = '{}', signed_in_at = NULL,
       mail_problem = NULL, deactivated_at = COALESCE(deactivated_at, NOW(3)),
       left_at = ${institutionNow}, revision = revision + 1
     WHERE id = ?`,
    [as, as, id],
  )
