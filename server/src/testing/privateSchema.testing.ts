import type { Pool, RowDataPacket } from 'mysql2/promise'
import { startFreshSchema } from '@wickerframe/storage/testing'
import { exampleFacts } from '@wickerframe/core/testing'
import type { Role } from '@wickerframe/contract'
import { personOf, testPassword } from '@wickerframe/contract/testing'
import { migrationsFolder } from '../migrationsFolder.ts'
import { putTerm } from '../terms/terms.ts'
import { addPerson, findWithPassword, type Person } from '../people/people.ts'

/** A schema of a test file's own, without any of the programs. */
export interface PrivateSchema {
  pool: Pool
  rows: <T>(sql: string, values?: unknown[]) => Promise<T[]>
  /** So many courses of the example’s term. @returns their ids */
  addCourses: (count: number) => Promise<number[]>
  /** Adds somebody, whose address says their role and whose password is `fair-winds-2026`. */
  person: (role: Role, account?: string) => Promise<Person>
  stop: () => Promise<void>
}

export const startPrivateSchema = async (): Promise<PrivateSchema> => {
  const { pool, stop } = await startFreshSchema(migrationsFolder)
  const rows = async <T>(sql: string, values: unknown[] = []): Promise<T[]> =>
    (await pool.query<RowDataPacket[]>(sql, values))[0] as T[]
  return {
    pool,
    rows,
    addCourses: async (count) => {
      const { term } = exampleFacts()
      await putTerm(pool, term)
      const [{ last } = { last: 0 }] = await rows<{ last: number }>(
        `SELECT COALESCE(MAX(id), 0) AS last
         FROM courses`,
      )
      for (let i = 1; i <= count; i++)
        await pool.query(
          `INSERT INTO courses (
             platform_id, term_code, code, title, department, modality, weeks, status,
               class_section_kind, topics
           )
           VALUES (?, ?, ?, 'A course', 'NAV', 'on-campus', 8, 'teaching', 'own', '{}')`,
          [`p${last + i}`, term.code, `NAV ${last + i}`],
        )
      return (
        await rows<{ id: number }>(
          `SELECT id
           FROM courses
           WHERE id > ?
           ORDER BY id`,
          [last],
        )
      ).map(({ id }) => id)
    },
    person: async (role, account) => {
      const person = personOf(role, account)
      await addPerson(pool, { ...person, password: testPassword })
      const found = await findWithPassword(pool, person.email)
      if (!found) throw new Error('the person was added')
      return found.person
    },
    stop,
  }
}
