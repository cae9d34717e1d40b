import { createConnection } from 'mysql2/promise'
import { tlsOptions, type DatabaseAddress } from './connect.ts'
import { tableOptions } from './migrations/files.ts'

/** Makes the schema if it is not there. */
export const createSchema = async ({
  host,
  port,
  user,
  password,
  database,
  tls,
}: DatabaseAddress): Promise<void> => {
  const connection = await createConnection({
    host,
    port,
    user,
    password,
    ...(tls ? { ssl: tlsOptions(tls) } : {}),
  })
  try {
    await connection.query(
      `CREATE DATABASE IF NOT EXISTS \`${database.replaceAll('`', '')}\` ${tableOptions}`,
    )
  } finally {
    await connection.end()
  }
}
