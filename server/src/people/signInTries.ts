import { change, rowsOf, type Database } from '@wickerframe/storage'

/** What tries are counted by. */
export type TryScope = 'account' | 'client' | 'device' | 'all'
export interface TryCounter {
  scope: TryScope
  name: string
}

/** Tries in ten minutes. Those that succeed are given back. */
const allowed: Readonly<Record<TryScope, number>> = { account: 8, client: 40, device: 8, all: 600 }
export const windowMinutes = 10

/**
 * Reserves a try with every counter, in one statement, before any password is looked at: of tries at once each sees its own
 * number. @returns whether it may be made
 */
export const reserveTry = async (
  database: Database,
  counters: readonly TryCounter[],
): Promise<boolean> => {
  const rows = await rowsOf<{ scope: TryScope; tries: number }>(
    database,
    `INSERT INTO sign_in_tries (scope, name, since, tries)
     VALUES ${counters.map(() => '(?, ?, NOW(3), 1)').join(', ')}
     ON DUPLICATE KEY UPDATE tries = IF(
       since < TIMESTAMPADD(MINUTE, ${-windowMinutes}, NOW(3)), 1, tries + 1
     ), since = IF(tries = 1, NOW(3), since) RETURNING scope, tries`,
    counters.flatMap(({ scope, name }) => [scope, name]),
  )
  return rows.every((row) => row.tries <= allowed[row.scope])
}

/** Gives a try back that turned out right. */
export const giveTryBack = async (
  database: Database,
  counters: readonly TryCounter[],
): Promise<void> => {
  await change(
    database,
    `UPDATE sign_in_tries
     SET tries = GREATEST(tries, 1) - 1
     WHERE ${counters.map(() => '(scope = ? AND name = ?)').join(' OR ')}`,
    counters.flatMap(({ scope, name }) => [scope, name]),
  )
}

export const forgetOldTries = async (database: Database): Promise<void> => {
  await change(
    database,
    `DELETE FROM sign_in_tries
     WHERE since < TIMESTAMPADD(MINUTE, ${-windowMinutes}, NOW(3))
     ORDER BY since
     LIMIT 1000`,
  )
}
