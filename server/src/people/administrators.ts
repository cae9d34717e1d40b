import { rowsOf, type Database } from '@wickerframe/storage'
import { HttpProblem } from '../http/problem.ts'

/** Who may sign in, of the table `people`: with a password, or as an identity provider knows them. */
export const canSignIn = `people.deactivated_at IS NULL
  AND (
    people.password_hash IS NOT NULL
    OR EXISTS (SELECT 1 FROM outside_identities WHERE outside_identities.person_id = people.id)
  )`

/** Locks every administrator who can sign in, so that of two who change them the second sees what the first did. @returns how many there are */
export const lockAdministrators = async (database: Database): Promise<number> =>
  (
    await rowsOf(
      database,
      `SELECT people.id
       FROM people
       JOIN person_roles
         ON person_roles.person_id = people.id
         AND person_roles.role = 'administrator'
       WHERE ${canSignIn}
       ORDER BY people.id
       FOR UPDATE`,
    )
  ).length

/**
 * Does something to an account. Afterwards there must be an administrator who can sign in, if there was one before: of two
 * administrators who take each other’s role at once, one is refused.
 */
export const keepingAdministrators = async <T>(
  database: Database,
  work: () => Promise<T>,
): Promise<T> => {
  const before = await lockAdministrators(database)
  const result = await work()
  if (before > 0 && (await lockAdministrators(database)) === 0)
    throw new HttpProblem(
      409,
      'last-administrator',
      'this is the last administrator who can sign in; make somebody else one first',
    )
  return result
}
