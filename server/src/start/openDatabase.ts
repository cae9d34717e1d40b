import type { Pool } from 'mysql2/promise'
import {
  connect,
  createSchema,
  databaseErrorCode,
  migrate,
  schemaFaults,
  schemaProblem,
  schemaState,
} from '@wickerframe/storage'
import { migrationsFolder } from '../migrationsFolder.ts'
import { databaseAddress, type Settings } from './settings.ts'

/** Why the database cannot be worked with, in a sentence for whoever starts the program. */
export class UnusableDatabase extends Error {}

const sentenceOf = (cause: unknown, { DATABASE_HOST, DATABASE_PORT, DATABASE_USER }: Settings) => {
  const code = databaseErrorCode(cause)
  if (code === 'ECONNREFUSED' || code === 'ETIMEDOUT' || code === 'ENOTFOUND')
    return `No database answers at ${DATABASE_HOST}, port ${DATABASE_PORT}; see DATABASE_HOST and DATABASE_PORT.`
  if (code === 'ER_ACCESS_DENIED_ERROR')
    return `The database does not let ${DATABASE_USER} in; see DATABASE_USER and DATABASE_PASSWORD.`
  if (code === 'HANDSHAKE_NO_SSL_SUPPORT')
    return 'The database offers no TLS; give it a certificate, or set DATABASE_TLS to no where the way to it is safe.'
  if (code === 'HANDSHAKE_SSL_ERROR')
    return `The database at ${DATABASE_HOST} is not known to be the right one: ${cause instanceof Error ? cause.message : String(cause)}. See DATABASE_HOST, which is to be a name that its certificate has, and DATABASE_CA_FILE, which is to hold who signed it.`
  return cause instanceof Error ? cause.message : String(cause)
}

/**
 * Opens the database: makes the schema if it is not there, runs what migrations are missing, and sees to it that time zone and
 * character sets are as the code relies on.
 * @throws UnusableDatabase in a sentence
 */
export const openDatabase = async (settings: Settings): Promise<Pool> => {
  const address = databaseAddress(settings)
  const pool = connect(address)
  try {
    await pool.query('SELECT 1').catch(async (cause: unknown) => {
      if (databaseErrorCode(cause) !== 'ER_BAD_DB_ERROR') throw cause
      await createSchema(address)
    })
    await migrate(pool, migrationsFolder)
    const problem = schemaProblem(await schemaState(pool, migrationsFolder))
    const faults = problem === null ? await schemaFaults(pool) : [problem]
    if (faults.length > 0) throw new UnusableDatabase(faults.join('\n'))
    return pool
  } catch (cause) {
    await pool.end()
    throw new UnusableDatabase(sentenceOf(cause, settings), { cause })
  }
}
