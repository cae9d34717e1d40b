import type { PeoplePage, PersonEntry, PersonState, Role } from '@wickerframe/contract'
import {
  anyOf,
  change,
  firstRow,
  rowsOf,
  type Database,
  type Value,
  holding,
} from '@wickerframe/storage'
import { canSignIn } from './administrators.ts'
import { byInstitution, instantOfRow } from '../moment.ts'
import { personColumns, personOfRow, setRoles, type PersonRow } from './people.ts'

/** How far somebody is, of the tables `people` and `one_time_links`. */
const stateColumn = `CASE
    WHEN people.left_at IS NOT NULL THEN 'left'
    WHEN people.deactivated_at IS NOT NULL THEN 'deactivated'
    WHEN ${canSignIn} THEN 'active'
    WHEN one_time_links.expires_at > NOW(3) THEN 'invited'
    ELSE 'known'
  END`
const withLink = `people
  LEFT JOIN one_time_links ON one_time_links.person_id = people.id`

interface EntryRow extends PersonRow {
  state: PersonState
  signed_in_at: string | null
  link_until: string | null
  mail_problem: string | null
  revision: number
}
const entryOfRow = (row: EntryRow): PersonEntry => ({
  ...personOfRow(row),
  state: row.state,
  signedInAt: row.signed_in_at === null ? null : instantOfRow(row.signed_in_at),
  linkUntil: row.link_until === null ? null : instantOfRow(row.link_until),
  mailProblem: row.mail_problem,
  revision: row.revision,
})
const entryColumns = `${personColumns}, ${stateColumn} AS state, people.signed_in_at,
  IF(
    one_time_links.expires_at > NOW(3), ${byInstitution('one_time_links.expires_at')}, NULL
  ) AS link_until, people.mail_problem, people.revision`

export interface PeopleFilter {
  search?: string | undefined
  role?: Role | undefined
  state?: PersonState | undefined
  department?: string | undefined
  /** Only those who come after somebody, by name. */
  after?: number | undefined
}
const pageLength = 100

/** A name as people look for it and order it: letter case and accents tell none apart. */
const sortable = (column: string): string => `${column} COLLATE utf8mb4_uca1400_ai_ci`

const conditionOf = ({ search, role, state, department }: PeopleFilter) => {
  const narrowed: readonly (readonly [sql: string, values: Value[] | null])[] = [
    [
      `(people.email LIKE ? OR ${sortable('people.name')} LIKE ?)`,
      search ? [holding(search.toLowerCase()), holding(search)] : null,
    ],
    [
      'EXISTS (SELECT 1 FROM person_roles WHERE person_roles.person_id = people.id AND person_roles.role = ?)',
      role ? [role] : null,
    ],
    [`${stateColumn} = ?`, state ? [state] : null],
    [
      'EXISTS (SELECT 1 FROM person_departments WHERE person_departments.person_id = people.id AND person_departments.department = ?)',
      department ? [department] : null,
    ],
  ]
  const used = narrowed.filter(([, values]) => values !== null)
  return {
    where: ['TRUE', ...used.map(([sql]) => sql)].join(' AND '),
    values: used.flatMap(([, values]) => values ?? []),
  }
}

/** A page of everybody, by name. */
export const listPeople = async (database: Database, filter: PeopleFilter): Promise<PeoplePage> => {
  const { where, values } = conditionOf(filter)
  const after = filter.after ?? 0
  const rows = await rowsOf<EntryRow>(
    database,
    `SELECT ${entryColumns}
     FROM ${withLink}
     WHERE ${where}
       AND (
         ? = 0
           OR (${sortable('people.name')}, people.id) > (
             SELECT ${sortable('last.name')}, last.id
             FROM people AS last
             WHERE last.id = ?
           )
       )
     ORDER BY ${sortable('people.name')}, people.id
     LIMIT ${pageLength + 1}`,
    [...values, after, after],
  )
  const page = rows.slice(0, pageLength)
  return {
    people: page.map(entryOfRow),
    total: await countPeople(database, filter),
    counts: await countByState(database),
    departments: await listDepartments(database),
    after: rows.length > pageLength ? (page.at(-1)?.id ?? null) : null,
  }
}

const countPeople = async (database: Database, filter: PeopleFilter): Promise<number> => {
  const { where, values } = conditionOf(filter)
  const row = await firstRow<{ total: number }>(
    database,
    `SELECT COUNT(*) AS total
     FROM ${withLink}
     WHERE ${where}`,
    values,
  )
  return row?.total ?? 0
}

const countByState = async (database: Database): Promise<Record<PersonState, number>> => {
  const rows = await rowsOf<{ state: PersonState; count: number }>(
    database,
    `SELECT ${stateColumn} AS state, COUNT(*) AS count
     FROM ${withLink}
     GROUP BY state`,
  )
  const counts = { known: 0, invited: 0, active: 0, deactivated: 0, left: 0 }
  for (const { state, count } of rows) counts[state] = count
  return counts
}

/** Departments that courses have. */
export const listDepartments = async (database: Database): Promise<string[]> =>
  (
    await rowsOf<{ department: string }>(
      database,
      `SELECT DISTINCT department
       FROM courses
       ORDER BY department`,
    )
  ).map(({ department }) => department)

export const findEntry = async (database: Database, id: number): Promise<PersonEntry | null> => {
  const row = await firstRow<EntryRow>(
    database,
    `SELECT ${entryColumns}
     FROM ${withLink}
     WHERE people.id = ?`,
    [id],
  )
  return row && entryOfRow(row)
}

export const findEntryByEmail = async (
  database: Database,
  email: string,
): Promise<PersonEntry | null> => {
  const row = await firstRow<EntryRow>(
    database,
    `SELECT ${entryColumns}
     FROM ${withLink}
     WHERE people.email = ?`,
    [email],
  )
  return row && entryOfRow(row)
}

/** Every instructor of the roster who has no account yet, by name; `again`: also those who have an open link. */
export const listUninvited = (
  database: Database,
  again: boolean,
): Promise<{ id: number; email: string; name: string }[]> =>
  rowsOf(
    database,
    `SELECT people.id, people.email, people.name
     FROM ${withLink}
     WHERE ${stateColumn} IN ('known', ?)
       AND EXISTS (SELECT 1 FROM course_people WHERE course_people.email = people.email)
     ORDER BY people.name, people.id
     FOR UPDATE`,
    [again ? 'invited' : 'known'],
  )

/** Adds somebody who cannot sign in yet. @returns their id */
export const addKnown = async (
  database: Database,
  { email, name }: { email: string; name: string },
): Promise<number> =>
  (
    await change(
      database,
      `INSERT INTO people (email, name)
       VALUES (?, ?)`,
      [email, name],
    )
  ).id

/** Whom the roster names is known, as an instructor; what they are called is the roster's word until they have an account. */
export const knowInstructors = async (
  database: Database,
  instructors: readonly { email: string; name: string }[],
): Promise<void> => {
  const named = [...new Map(instructors.map(({ email, name }) => [email.toLowerCase(), name]))]
  if (named.length === 0) return
  await change(
    database,
    `INSERT INTO people (email, name)
     VALUES ${named.map(() => '(?, ?)').join(', ')}
     ON DUPLICATE KEY UPDATE name = IF(password_hash IS NULL, VALUES(name), name)`,
    named.flat(),
  )
  await letTeach(
    database,
    named.map(([email]) => email),
  )
}
const letTeach = (database: Database, emails: readonly string[]) => {
  const named = anyOf(emails)
  return change(
    database,
    `INSERT IGNORE INTO person_roles (person_id, role)
     SELECT id, 'instructor'
     FROM people
     WHERE email IN ${named.sql}`,
    named.values,
  )
}

/** Gives somebody another name, other roles and departments. @returns false when they were changed since `was` */
export const changePerson = async (
  database: Database,
  id: number,
  {
    was,
    name,
    roles,
    departments,
  }: { was: number; name: string; roles: Role[]; departments: string[] },
): Promise<boolean> => {
  const { affected } = await change(
    database,
    `UPDATE people
     SET name = ?, revision = revision + 1
     WHERE id = ? AND revision = ? AND left_at IS NULL`,
    [name, id, was],
  )
  if (affected === 0) return false
  await setRoles(database, id, roles, departments)
  return true
}

/** Lets nobody sign in as somebody from now on, or again. @returns false when they were changed since `was` */
export const setDeactivated = async (
  database: Database,
  id: number,
  was: number,
  deactivated: boolean,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE people
       SET deactivated_at = IF(?, NOW(3), NULL), revision = revision + 1
       WHERE id = ? AND revision = ? AND left_at IS NULL`,
      [deactivated, id, was],
    )
  ).affected === 1
