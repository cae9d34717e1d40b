import type { healthRoutes } from '@wickerframe/contract'
import type { HandlersOf } from './handler.ts'
import { firstRow } from '@wickerframe/storage'
import { mustSay } from './away.ts'

export const healthHandlers: HandlersOf<typeof healthRoutes> = {
  /** Says that all is well once a table of ours has answered: a database node that is up may still answer nothing. */
  health: async ({ pool }) => {
    await mustSay(
      firstRow(
        pool,
        `SELECT name
         FROM migrations
         ORDER BY name DESC
         LIMIT 1`,
      ),
    )
    return { database: true }
  },
}
