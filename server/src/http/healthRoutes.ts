import type { healthRoutes } from '@wickerframe/contract'
import { answers } from '@wickerframe/storage'
import { mustSay } from './away.ts'
import type { HandlersOf } from './handler.ts'

export const healthHandlers: HandlersOf<typeof healthRoutes> = {
  /** Says that all is well once a table of ours has answered. */
  health: async ({ pool }) => {
    await mustSay(answers(pool))
    return { database: true }
  },
}
