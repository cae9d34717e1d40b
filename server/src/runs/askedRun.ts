import { askRun, type NewRun } from './newRun.ts'
import type { Situation } from '../http/handler.ts'
import { HttpProblem } from '../http/problem.ts'

/** Runs of one person that may be at work, or wait for it, at once. */
const mostOpen = 20

/**
 * Begins a run that a person asks for; the same question, asked again before anything was read for it, is the same run.
 * @throws HttpProblem 429 when too much of theirs waits already
 */
export const askedRun = async ({ pool }: Pick<Situation, 'pool'>, run: NewRun): Promise<number> => {
  const asked = await askRun(pool, run, mostOpen)
  if (asked.state === 'too-many')
    throw new HttpProblem(
      429,
      'too-many-runs',
      `${mostOpen} runs of yours are at work or wait already; let them end, or take one back`,
      {},
      30,
    )
  return asked.run
}
