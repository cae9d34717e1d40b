import { CheckRequest } from '@wickerframe/contract'
import { listCourses, type StoredCourse } from '../../repositories/courses.ts'
import {
  commandRun,
  createRun,
  findRun,
  mayFollowRun,
  runPulse,
  type Command,
} from '../../repositories/runs.ts'
import { bodyOf, numberIn, type Handler, type Handling } from '../handler.ts'
import { HttpProblem, notFound } from '../problem.ts'
import { courseIn } from './courses.ts'
import { coursesOf } from './rollouts.ts'

const checkRun = async (
  { pool, person }: Handling,
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
    run: await createRun(pool, {
      kind: 'check',
      title: `${courses.length} ${courses.length === 1 ? 'course' : 'courses'} as of ${asOf}`,
      by: person.email,
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

const pulseMilliseconds = 400

/** Says `changed` whenever something of the run did; the client then fetches the state. Ends with the run. */
export const getRunEvents: Handler = async (handling) => {
  const { pool, request, response } = handling
  const id = await runIn(handling)
  let last = await runPulse(pool, id)
  if (last === null) throw notFound('run')
  response.set({
    'Content-Type': 'text/event-stream',
    'Cache-Control': 'no-store',
    'X-Accel-Buffering': 'no',
  })
  response.flushHeaders()
  let open = true
  request.on('close', () => (open = false))
  const say = (pulse: string) =>
    response.write(`event: changed\ndata: ${JSON.stringify({ pulse })}\n\n`)
  say(last)
  while (open) {
    await new Promise((resolve) => setTimeout(resolve, pulseMilliseconds))
    const pulse = await runPulse(pool, id).catch(() => last)
    if (!open || pulse === null) break
    if (pulse !== last) say((last = pulse))
    if (/^(done|cancelled):/.test(pulse) && !/(waiting|at-work|sent|to-plan)[1-9]/.test(pulse))
      break
  }
  response.end()
  return undefined
}
