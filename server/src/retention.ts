import type { Pool } from 'mysql2/promise'
import { forgetAudit } from './audit/audit.ts'
import { forgetResults } from './checks/checks.ts'
import { forgetMessages } from './messages/messages.ts'
import { forgetRuns } from './runs/oldRuns.ts'

/** For how many days something is kept; null: for ever. */
export interface Retention {
  audit: number | null
  messages: number | null
  /** Results of checks that are not the latest of their course. */
  results: number | null
  /** Runs that have ended, with what failed in them. */
  runs: number | null
  /** Page texts that nothing names any more, from then on. */
  bodies: number
}

/** Takes away what is older than it is to be kept, some at a time; never what something else still names. */
export const forgetOld = async (pool: Pool, keep: Retention): Promise<void> => {
  if (keep.audit !== null) await forgetAudit(pool, keep.audit)
  if (keep.messages !== null) await forgetMessages(pool, keep.messages)
  if (keep.results !== null) await forgetResults(pool, keep.results)
  if (keep.runs !== null) await forgetRuns(pool, keep.runs)
}
