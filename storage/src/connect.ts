import { createPool, type Pool } from 'mysql2/promise'

/** Where a MariaDB server listens, and which schema of it is ours. */
export interface DatabaseAddress {
  host: string
  port: number
  user: string
  password: string
  database: string
  /** How far the institution's clock is moved from the machine's; 0 but in demonstrations. */
  institutionOffsetSeconds?: number
  /** Speak TLS, and hold the server's certificate against its name; `ca` in PEM where the system does not know who signed it. */
  tls?: { ca: string | undefined }
}

export const tlsOptions = ({ ca }: NonNullable<DatabaseAddress['tls']>) => ({
  rejectUnauthorized: true,
  verifyIdentity: true,
  minVersion: 'TLSv1.2',
  ...(ca === undefined ? {} : { ca }),
})

/**
 * A pool of connections: utf8mb4, UTC, dates as strings, big integers as strings when they would not be exact, READ
 * COMMITTED, and no `multipleStatements`. Every value is bound.
 */
export const connect = (
  { institutionOffsetSeconds = 0, tls, ...address }: DatabaseAddress,
  connections = 10,
): Pool => {
  const pool = createPool({
    ...address,
    ...(tls ? { ssl: tlsOptions(tls) } : {}),
    connectionLimit: connections,
    charset: 'utf8mb4_bin',
    timezone: 'Z',
    dateStrings: true,
    supportBigNumbers: true,
    connectTimeout: 5000,
    enableKeepAlive: true,
  })
  pool.pool.on('connection', (connection) => {
    connection.query(
      `SET SESSION tx_isolation = 'READ-COMMITTED', SESSION innodb_lock_wait_timeout = 10, SESSION sql_mode = 'STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION', SESSION time_zone = '+00:00', @institution_offset = ${Math.trunc(institutionOffsetSeconds)}`,
    )
  })
  return pool
}
