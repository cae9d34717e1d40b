import { randomUUID } from 'node:crypto'
import type { Pool } from 'mysql2/promise'
import { inject } from 'vitest'
import { connect } from './connect.ts'
import { createSchema } from './createSchema.ts'
import { migrate } from './migrations/migrate.ts'
import './oneDatabase.testing.ts'

/** A schema of a test file's own on the database of the run. */
export interface FreshSchema {
  pool: Pool
  /** Takes the schema away, and ends its connections. */
  stop: () => Promise<void>
}

/** @param migrationsFolder what makes the schema */
export const startFreshSchema = async (migrationsFolder: string): Promise<FreshSchema> => {
  const { port, password } = inject('database')
  const database = `wf_${randomUUID().replaceAll('-', '')}`
  const address = { host: '127.0.0.1', port, user: 'root', password, database }
  await createSchema(address)
  const pool = connect(address, 20)
  await migrate(pool, migrationsFolder)
  return {
    pool,
    stop: async () => {
      await pool.query(`DROP DATABASE ${database}`)
      await pool.end()
    },
  }
}
