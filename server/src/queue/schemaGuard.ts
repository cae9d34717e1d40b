import type { Pool } from 'mysql2/promise'
import type { Logger } from 'pino'
import { schemaProblem, schemaState } from '@wickerframe/storage'

const lookedAtEveryMilliseconds = 5000

/**
 * Whether the schema is the one this program is made for, looked at every few seconds: it may be changed under a worker that
 * runs. What is wrong with it is told once.
 */
export const schemaGuard = (
  pool: Pool,
  folder: string,
  log: Pick<Logger, 'warn'>,
  everyMilliseconds = lookedAtEveryMilliseconds,
): (() => Promise<boolean>) => {
  let lookedAt = -Infinity
  let asked: Promise<boolean> = Promise.resolve(false)
  let told: string | null = null
  const look = async (): Promise<boolean> => {
    const problem = schemaProblem(await schemaState(pool, folder))
    if (problem !== null && problem !== told) log.warn(`${problem}; this worker waits until then`)
    told = problem
    return problem === null
  }
  return () => {
    if (performance.now() - lookedAt >= everyMilliseconds) {
      lookedAt = performance.now()
      asked = look()
      asked.catch(() => (lookedAt = -Infinity))
    }
    return asked
  }
}
