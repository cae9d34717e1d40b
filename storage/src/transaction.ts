import type { Connection, Pool, ResultSetHeader, RowDataPacket } from 'mysql2/promise'

/** Something statements can be run on: a pool, or the connection of a transaction. */
export type Database = Pick<Connection, 'execute'>
export type Row = Record<string, unknown>
export type Value = string | number | boolean | null | Buffer | Date

/** Rows of a SELECT. The caller names their shape; columns are those of the statement. */
export const rowsOf = async <T extends object>(
  database: Database,
  sql: string,
  values: readonly Value[] = [],
): Promise<T[]> => {
  const [rows] = await database.execute<RowDataPacket[]>(sql, [...values])
  return rows as unknown as T[]
}

export const firstRow = async <T extends object>(
  database: Database,
  sql: string,
  values: readonly Value[] = [],
): Promise<T | null> => (await rowsOf<T>(database, sql, values))[0] ?? null

/**
 * Runs an INSERT, UPDATE or DELETE. On a pool it is a transaction of its own, so a deadlock or lock time-out makes it run again;
 * within a transaction the whole of that must.
 * @returns how many rows it touched and the id it minted
 */
export const change = async (
  database: Database,
  sql: string,
  values: readonly Value[] = [],
): Promise<{ affected: number; id: number }> => {
  const run = () => database.execute<ResultSetHeader>(sql, [...values])
  const [result] = await ('getConnection' in database ? againAfterDeadlock(run) : run())
  return { affected: result.affectedRows, id: result.insertId }
}

export const databaseErrorCode = (cause: unknown): string | null =>
  cause instanceof Error && 'code' in cause && typeof cause.code === 'string' ? cause.code : null

const mayPass = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD'])
const attempts = 4

/** What a deadlock or lock time-out (1213, 1205) took back wholly is run again, a few times. */
const againAfterDeadlock = async <T>(work: () => Promise<T>): Promise<T> => {
  for (let attempt = 1; ; attempt++)
    try {
      return await work()
    } catch (cause) {
      if (attempt >= attempts || !mayPass.has(databaseErrorCode(cause) ?? '')) throw cause
      await new Promise((resolve) => setTimeout(resolve, 20 * 2 ** attempt * (0.5 + Math.random())))
    }
}

/** Runs the work in one transaction. A deadlock or lock time-out makes the whole of it run again, a few times. */
export const inTransaction = <T>(
  pool: Pool,
  work: (database: Database) => Promise<T>,
): Promise<T> =>
  againAfterDeadlock(async () => {
    const connection = await pool.getConnection()
    try {
      await connection.beginTransaction()
      const result = await work(connection)
      await connection.commit()
      return result
    } catch (cause) {
      await connection.rollback().catch(() => undefined)
      throw cause
    } finally {
      connection.release()
    }
  })
