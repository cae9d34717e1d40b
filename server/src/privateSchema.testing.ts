import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Pool, RowDataPacket } from 'mysql2/promise'
import { connect, createSchema, migrate } from '@wickerframe/storage'
import { startPrivateMariadb } from '@wickerframe/scripts/privateMariadb'
import { migrationsFolder } from './migrationsFolder.ts'

/** A schema of ours on a database of its own, without any of the programs. */
export interface PrivateSchema {
  pool: Pool
  rows: <T>(sql: string, values?: unknown[]) => Promise<T[]>
  /** Makes a term with so many courses. @returns their ids */
  addCourses: (count: number) => Promise<number[]>
  stop: () => Promise<void>
}

export const startPrivateSchema = async (): Promise<PrivateSchema> => {
  const folder = mkdtempSync(join(tmpdir(), 'wf-schema-'))
  const database = await startPrivateMariadb(join(folder, 'mariadb'), { quickAndUnsafe: true })
  const address = {
    host: '127.0.0.1',
    port: database.port,
    user: 'root',
    password: database.password,
    database: 'wickerframe',
  }
  await createSchema(address)
  const pool = connect(address, 20)
  await migrate(pool, migrationsFolder)
  const rows = async <T>(sql: string, values: unknown[] = []): Promise<T[]> =>
    (await pool.query<RowDataPacket[]>(sql, values))[0] as T[]
  return {
    pool,
    rows,
    addCourses: async (count) => {
      await pool.query(
        `INSERT IGNORE INTO terms (code, title, first_day, last_day, time_zone, document)
         VALUES ('autumn', 'Autumn', '2026-08-31', '2026-12-18', 'America/Halifax', '{}')`,
      )
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
           VALUES (?, 'autumn', ?, 'A course', 'NAV', 'in-person', 16, 'teaching', 'own', '{}')`,
          [`p${last + i}`, `NAV ${last + i}`],
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
    stop: async () => {
      await pool.end()
      await database.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
