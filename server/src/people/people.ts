import { hash } from '@node-rs/argon2'
import type { Role } from '@wickerframe/contract'
import { change, firstRow, type Database } from '@wickerframe/storage'

export interface Person {
  id: number
  email: string
  name: string
  role: Role
}

export const addPerson = async (
  database: Database,
  person: Omit<Person, 'id'> & { password: string },
): Promise<void> => {
  await change(
    database,
    `INSERT INTO people (email, name, role, password_hash)
     VALUES (?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE name = VALUES(name), role = VALUES(role)`,
    [person.email.toLowerCase(), person.name, person.role, await hash(person.password)],
  )
}

/** Somebody with the hash of their password, by e-mail address in lower case. */
export const findWithPassword = (
  database: Database,
  email: string,
): Promise<(Person & { password_hash: string }) | null> =>
  firstRow(
    database,
    `SELECT id, email, name, role, password_hash
     FROM people
     WHERE email = ?`,
    [email],
  )

/** Gives somebody another password; every session that began before it ends with that. */
export const changePassword = async (
  database: Database,
  personId: number,
  password: string,
): Promise<void> => {
  await change(
    database,
    `UPDATE people
     SET password_hash = ?, password_changed_at = NOW(3)
     WHERE id = ?`,
    [await hash(password), personId],
  )
}
