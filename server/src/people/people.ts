import { hash } from '@node-rs/argon2'
import { Preferences, roles, type Account, type Role } from '@wickerframe/contract'
import { anyOf, change, firstRow, institutionNow, type Database } from '@wickerframe/storage'

/** Somebody who is signed in, or whom an act is done by. */
export interface Person {
  id: number
  email: string
  name: string
  /** One or more. */
  roles: Role[]
  /** That the roles of designer and reviewer are about; all where none is named. */
  departments: string[]
}

/** Columns of a person, of the table `people`. */
export const personColumns = `people.id, people.email, people.name,
  (
    SELECT GROUP_CONCAT(person_roles.role ORDER BY person_roles.role SEPARATOR ',')
    FROM person_roles
    WHERE person_roles.person_id = people.id
  ) AS roles, (
    SELECT GROUP_CONCAT(
      person_departments.department ORDER BY person_departments.department SEPARATOR '\n'
    )
    FROM person_departments
    WHERE person_departments.person_id = people.id
  ) AS departments`
export interface PersonRow {
  id: number
  email: string
  name: string
  roles: string | null
  departments: string | null
}
export const personOfRow = ({ id, email, name, roles: held, departments }: PersonRow): Person => ({
  id,
  email,
  name,
  roles: roles.filter((role) => held?.split(',').includes(role)),
  departments: departments?.split('\n') ?? [],
})

/** Somebody with the hash of their password, by e-mail address in lower case; not who has none, or may not sign in. */
export const findWithPassword = async (
  database: Database,
  email: string,
): Promise<{ person: Person; passwordHash: string } | null> => {
  const row = await firstRow<PersonRow & { password_hash: string }>(
    database,
    `SELECT ${personColumns}, people.password_hash
     FROM people
     WHERE people.email = ? AND people.password_hash IS NOT NULL AND people.deactivated_at IS NULL`,
    [email],
  )
  return row && { person: personOfRow(row), passwordHash: row.password_hash }
}

/** Somebody by their id. */
export const findPerson = async (database: Database, id: number): Promise<Person | null> => {
  const row = await firstRow<PersonRow>(
    database,
    `SELECT ${personColumns}
     FROM people
     WHERE people.id = ?`,
    [id],
  )
  return row && personOfRow(row)
}

/** What somebody is told of their own account. */
export const findSelf = async (
  database: Database,
  id: number,
): Promise<Omit<Account, 'sessions' | 'sendsMail'> | null> => {
  const row = await firstRow<{
    name: string
    email: string
    has_password: number
    preferences: string
  }>(
    database,
    `SELECT name, email, password_hash IS NOT NULL AS has_password, preferences
     FROM people
     WHERE id = ?`,
    [id],
  )
  return (
    row && {
      name: row.name,
      email: row.email,
      hasPassword: row.has_password === 1,
      preferences: Preferences.parse(JSON.parse(row.preferences)),
    }
  )
}

/** Changes what somebody is called and what they chose. */
export const changeSelf = async (
  database: Database,
  id: number,
  { name, preferences }: { name: string; preferences: Preferences },
): Promise<void> => {
  await change(
    database,
    `UPDATE people
     SET name = ?, preferences = ?
     WHERE id = ?`,
    [name, JSON.stringify(preferences), id],
  )
}

/** Keeps that somebody signed in now. */
export const markSignedIn = async (database: Database, id: number): Promise<void> => {
  await change(
    database,
    `UPDATE people
     SET signed_in_at = ${institutionNow}
     WHERE id = ?`,
    [id],
  )
}

/** Adds somebody with a password, or changes who has that address already. */
export const addPerson = async (
  database: Database,
  { email, name, roles: held, departments, password }: Omit<Person, 'id'> & { password: string },
): Promise<void> => {
  const { id } = await change(
    database,
    `INSERT INTO people (email, name, password_hash)
     VALUES (?, ?, ?)
     ON DUPLICATE KEY UPDATE id = LAST_INSERT_ID(id), name = VALUES(name),
       password_hash = VALUES(password_hash)`,
    [email.toLowerCase(), name, await hash(password)],
  )
  await setRoles(database, id, held, departments)
}

/** Gives somebody these roles and departments, and no others. */
export const setRoles = async (
  database: Database,
  person: number,
  held: readonly Role[],
  departments: readonly string[],
): Promise<void> => {
  await removeRolesBut(database, person, held)
  await removeDepartments(database, person)
  if (held.length > 0) await addRoles(database, person, held)
  if (departments.length > 0) await addDepartments(database, person, departments)
}
/** Roles that stay are not touched: whether claims gave them is kept. */
const removeRolesBut = (database: Database, person: number, held: readonly Role[]) => {
  const kept = anyOf(held)
  return change(
    database,
    `DELETE FROM person_roles
     WHERE person_id = ? AND (? = 0 OR role NOT IN ${kept.sql})`,
    [person, held.length, ...kept.values],
  )
}
const removeDepartments = (database: Database, person: number) =>
  change(
    database,
    `DELETE FROM person_departments
     WHERE person_id = ?`,
    [person],
  )
const addRoles = (database: Database, person: number, held: readonly Role[]) =>
  change(
    database,
    `INSERT IGNORE INTO person_roles (person_id, role)
     VALUES ${held.map(() => '(?, ?)').join(', ')}`,
    held.flatMap((role) => [person, role]),
  )
const addDepartments = (database: Database, person: number, departments: readonly string[]) =>
  change(
    database,
    `INSERT INTO person_departments (person_id, department)
     VALUES ${departments.map(() => '(?, ?)').join(', ')}`,
    departments.flatMap((department) => [person, department]),
  )

/** Gives somebody another password, as its hash; every session that began before it ends with that. */
export const changePassword = async (
  database: Database,
  personId: number,
  passwordHash: string,
): Promise<void> => {
  await change(
    database,
    `UPDATE people
     SET password_hash = ?, password_changed_at = NOW(3)
     WHERE id = ?`,
    [passwordHash, personId],
  )
}
