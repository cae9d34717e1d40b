import { isRole, type Role } from '@wickerframe/contract'
import { change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { addKnown, findEntry, findEntryByEmail } from '../accounts.ts'
import { lockAdministrators } from '../administrators.ts'
import { findPerson, type Person } from '../people.ts'
import type { OutsideSettings, Vouched } from './provider.ts'

/** Why somebody whom the provider knows is not let in. */
export type NotLetIn = 'no-account' | 'deactivated'

/** Roles that the provider's claims give. */
export const rolesByClaims = (
  { roleOf }: Pick<OutsideSettings, 'roleOf'>,
  groups: readonly string[],
): Role[] => [...new Set(groups.flatMap((group) => [roleOf[group] ?? '']).filter(isRole))]

/**
 * The person whom a provider vouches for: whom it vouched for before, whatever their address is now; or who has that address;
 * or somebody new, where its claims give a role. Roles that its claims gave before and do not give now end; others stay.
 */
export const personVouchedFor = async (
  database: Database,
  vouched: Vouched,
  settings: Pick<OutsideSettings, 'roleOf'>,
): Promise<Person | NotLetIn> => {
  const { issuer, subject, email, name } = vouched
  const roles = rolesByClaims(settings, vouched.groups)
  let id = await findByIdentity(database, issuer, subject)
  if (id === null && email !== null) {
    const known = await findEntryByEmail(database, email)
    // Another identity of the same provider has that account already: an address that was given to somebody else.
    if (known && (await hasIdentity(database, known.id, issuer))) return 'no-account'
    if (!known && roles.length === 0) return 'no-account'
    id = known?.id ?? (await addKnown(database, { email, name: name ?? email }))
    await addIdentity(database, issuer, subject, id)
  }
  if (id === null) return 'no-account'
  if ((await findEntry(database, id))?.state === 'deactivated') return 'deactivated'
  await takeRoles(database, id, roles)
  const person = await findPerson(database, id)
  return person === null || person.roles.length === 0 ? 'no-account' : person
}

const findByIdentity = async (
  database: Database,
  issuer: string,
  subject: string,
): Promise<number | null> =>
  (
    await firstRow<{ id: number }>(
      database,
      `SELECT person_id AS id
       FROM outside_identities
       WHERE issuer = ? AND subject = ?
       FOR UPDATE`,
      [issuer, subject],
    )
  )?.id ?? null
const hasIdentity = async (database: Database, person: number, issuer: string): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT 1 AS yes
     FROM outside_identities
     WHERE person_id = ? AND issuer = ?`,
    [person, issuer],
  )) !== null
const addIdentity = (database: Database, issuer: string, subject: string, person: number) =>
  change(
    database,
    `INSERT INTO outside_identities (issuer, subject, person_id)
     VALUES (?, ?, ?)`,
    [issuer, subject, person],
  )

/** Makes the roles that claims gave those that they give now; the last administrator stays one. */
const takeRoles = async (
  database: Database,
  person: number,
  roles: readonly Role[],
): Promise<void> => {
  const before = await rolesGivenByClaims(database, person)
  for (const role of before) {
    if (roles.includes(role)) continue
    if (role === 'administrator' && (await lockAdministrators(database)) <= 1) continue
    await removeRole(database, person, role)
  }
  for (const role of roles) if (!before.includes(role)) await addRole(database, person, role)
}
const rolesGivenByClaims = async (database: Database, person: number): Promise<Role[]> =>
  (
    await rowsOf<{ role: Role }>(
      database,
      `SELECT role
       FROM person_roles
       WHERE person_id = ? AND by_claims = 1`,
      [person],
    )
  ).map(({ role }) => role)
const removeRole = (database: Database, person: number, role: Role) =>
  change(
    database,
    `DELETE FROM person_roles
     WHERE person_id = ? AND role = ?`,
    [person, role],
  )
const addRole = (database: Database, person: number, role: Role) =>
  change(
    database,
    `INSERT IGNORE INTO person_roles (person_id, role, by_claims)
     VALUES (?, ?, 1)`,
    [person, role],
  )
