import { CheckRequest } from '@wickerframe/contract'
import { listCourses, type StoredCourse } from '../../repositories/courses.ts'
import { commandRun, findRun, mayFollowRun, type Command } from '../../repositories/runs.ts'
import { bodyOf, numberIn, type Handler, type Handling } from '../handler.ts'
import { digestOf } from '../../digest.ts'
import { askedRun } from '../askedRun.ts'
import { HttpProblem, notFound } from '../problem.ts'
import { courseIn } from './courses.ts'
import { coursesOf } from './rollouts.ts'

const checkRun = async (
  handling: Handling,
  courses: readonly StoredCourse[],
  asOf: string,
): Promise<{ run: number }> => {
  if (courses.length === 0)
    throw new HttpProblem(
      409,
      'nothing-to-check',
      'there is no course to check; import a roster first',
    )
  return {
    run: await askedRun(handling, {
      kind: 'check',
      title: `${courses.length} ${courses.length === 1 ? 'course' : 'courses'} as of ${asOf}`,
      by: handling.person.email,
      question: digestOf({ asOf, courses: courses.map((stored) => stored.summary.id) }),
      asOf,
      templateId: null,
      version: null,
      tasks: courses.map((stored) => ({ courseId: stored.summary.id })),
    }),
  }
}

export const postChecks: Handler = async (handling) => {
  const { request, today, pool, person } = handling
  const { courses, asOf = today } = bodyOf(CheckRequest, request)
  const chosen = courses
    ? await coursesOf(handling, courses)
    : (await listCourses(pool, person, today)).filter(
        (stored) => stored.summary.status === 'teaching',
      )
  return checkRun(handling, chosen, asOf)
}

export const postCourseCheck: Handler = async (handling) => {
  const { asOf = handling.today } = bodyOf(CheckRequest, handling.request)
  return checkRun(handling, [await courseIn(handling)], asOf)
}

/** The run of the address, if it is there and theirs to see: an instructor's when all its courses are. */
const runIn = async ({ pool, request, person }: Handling): Promise<number> => {
  const id = numberIn(request, 'run', 'run')
  if (!(await mayFollowRun(pool, id, person))) throw notFound('run')
  return id
}

export const getRun: Handler = async (handling) => {
  const run = await findRun(handling.pool, await runIn(handling))
  if (!run) throw notFound('run')
  return run
}

export const command =
  (name: Command): Handler =>
  async ({ pool, request, person }) => {
    if (!(await commandRun(pool, numberIn(request, 'run', 'run'), name, person.email)))
      throw notFound('run')
    return {}
  }

const sessionAskedMilliseconds = 5000

/**
 * Says `changed` whenever something of the run did; the client then fetches the state. Ends with the run, and with the session
 * of whoever listens.
 */
export const getRunEvents: Handler = async (handling) => {
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
  return undefined
}
