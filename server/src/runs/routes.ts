import type { runRoutes } from '@wickerframe/contract'
import { hasAnswered, type HandlersOf, type Situation } from '../http/handler.ts'
import { plansChanged } from '../rollouts/plans.ts'
import { commandRun, type Command } from './commands.ts'
import { findRun, mayFollowRun } from './runs.ts'
import { HttpProblem, notFound } from '../http/problem.ts'

interface AboutRun extends Situation {
  at: { run: number }
}

/** The run of the address, if it is there and theirs to see. */
export const runIn = async ({ pool, person, at }: AboutRun): Promise<number> => {
  if (!(await mayFollowRun(pool, at.run, person))) throw notFound('run')
  return at.run
}

const command =
  (name: Command) =>
  async ({ pool, person, at }: AboutRun): Promise<{}> => {
    if (!(await commandRun(pool, at.run, name, person.email))) throw notFound('run')
    return {}
  }

const sessionAskedMilliseconds = 5000

export const runHandlers: HandlersOf<typeof runRoutes> = {
  pauseRun: command('pause'),
  resumeRun: command('resume'),
  cancelRun: command('cancel'),
  retryRun: command('retry'),
  approveRun: async ({ pool, person, at: { run }, body: { courses, shown } }) => {
    const changed = shown ? await plansChanged(pool, run, shown) : []
    if (changed.length > 0)
      throw new HttpProblem(
        409,
        'changed',
        `${changed.length === 1 ? 'a plan is' : `${changed.length} plans are`} not what you were shown any more: somebody decided something, or a course changed. Look at the plans again, then approve.`,
      )
    const chosen = courses ?? shown?.map(({ course }) => course)
    if (!(await commandRun(pool, run, 'approve', person.email, chosen))) throw notFound('run')
    return {}
  },
  readRun: async (handling) => {
    const run = await findRun(handling.pool, await runIn(handling))
    if (!run) throw notFound('run')
    return run
  },
  /**
   * Says `changed` whenever something of the run did; the client then fetches the state. Ends with the run, and with the session
   * of whoever listens.
   */
  followRun: async (handling) => {
    const { response, person, pulses, sessionStands } = handling
    const id = await runIn(handling)
    const giveBack = pulses.take(person.id)
    if (!giveBack)
      throw new HttpProblem(
        429,
        'too-many-streams',
        'you follow as many runs at once as one person may; close one of the pages',
        {},
        10,
      )
    let end = () => {}
    const ended = new Promise<void>((resolve) => (end = resolve))
    let stop: (() => void) | null = null
    const clock = setInterval(() => {
      void sessionStands().then(
        (stands) => stands || end(),
        () => undefined,
      )
    }, sessionAskedMilliseconds)
    try {
      stop = await pulses.follow(id, (pulse) => {
        if (pulse === null) return end()
        if (!response.headersSent) {
          response.set({
            'Content-Type': 'text/event-stream',
            'Cache-Control': 'no-store',
            'X-Accel-Buffering': 'no',
          })
          response.flushHeaders()
        }
        response.write(`event: changed\ndata: ${JSON.stringify({ pulse })}\n\n`)
      })
      if (!stop) throw notFound('run')
      response.on('close', end)
      if (!response.destroyed) await ended
      response.end()
    } finally {
      clearInterval(clock)
      stop?.()
      giveBack()
    }
    return hasAnswered
  },
}
