import type { CoursePlan, RolloutOrder, RolloutRequest, RunDetail } from '@wickerframe/contract'
import { firstRow } from '@wickerframe/storage'
import { until, type Client, type TestBed } from './testBed.ts'
import { workHere } from './workHere.ts'

/** A rollout of a version, with nothing special about it. */
export const versionOrder = (
  template: string,
  version: number,
  more: Partial<Extract<RolloutOrder, { mode: 'version' }>> = {},
): RolloutOrder => ({
  mode: 'version',
  template,
  version,
  only: null,
  except: [],
  restore: { fixedText: false, missingParts: false },
  adopt: false,
  ...more,
})

export const runOf = async (client: Client, run: number): Promise<RunDetail> =>
  (await client.get<RunDetail>(`/api/runs/${run}`)).body

/** Waits until a run is in a state, as the database says: the server is not kept busy by being asked. */
export const runIs = (
  { pool }: TestBed,
  run: number,
  state: RunDetail['state'],
  seconds: number,
): Promise<unknown> =>
  until(
    () =>
      firstRow<{ state: string }>(
        pool,
        `SELECT state
         FROM runs
         WHERE id = ?`,
        [run],
      ),
    (row) => row?.state === state,
    seconds,
  )

/** Lets what is to be done be done, until the run is in a state. */
export const workUntil = async (
  bed: TestBed,
  client: Client,
  run: number,
  state: RunDetail['state'],
): Promise<RunDetail> => {
  const worker = workHere(bed)
  try {
    return await until(
      () => runOf(client, run),
      (detail) => detail.state === state,
    )
  } finally {
    await worker.stop()
  }
}

/** Makes a rollout and has its plans made. @returns the run, with the plan of each course in the order they were given */
export const planRollout = async (
  bed: TestBed,
  client: Client,
  order: RolloutOrder,
  courses: readonly number[],
  more: Partial<RolloutRequest> = {},
): Promise<{ run: number; plans: CoursePlan[] }> => {
  const made = await client.post<{ run: number; detail?: string }>('/api/rollouts', {
    order,
    courses,
    ...more,
  })
  if (made.status !== 200) throw new Error(`${made.status} ${made.body.detail}`)
  const { run } = made.body
  await workUntil(bed, client, run, 'planned')
  const ids =
    courses.length > 0 ? courses : (await runOf(client, run)).tasks.map((task) => task.course)
  const plans: CoursePlan[] = []
  for (const course of ids)
    plans.push((await client.get<CoursePlan>(`/api/rollouts/${run}/courses/${course}`)).body)
  return { run, plans }
}
