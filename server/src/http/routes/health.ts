import { firstRow } from '@wickerframe/storage'
import { mustSay } from '../away.ts'
import type { Handler } from '../handler.ts'

/** Says that all is well once a table of ours has answered: a database node that is up may still answer nothing. */
export const getHealth: Handler = async ({ pool }) => {
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
}
