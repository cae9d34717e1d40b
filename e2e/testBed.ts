import { randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Pool } from 'mysql2/promise'
import { demoClockOffset, demoPassword, demoTimeZone } from '@wickerframe/demo'
import { connect } from '@wickerframe/storage'
import { loadDemo } from '@wickerframe/scripts/loadDemo'
import {
  freePort,
  startPrivateMariadb,
  type RunningMariadb,
} from '@wickerframe/scripts/privateMariadb'
import { startProcess, type StartedProcess } from '@wickerframe/scripts/processes'
import { demoDatabase } from './preparedDemo.ts'

export interface Answer<T = unknown> {
  status: number
  body: T
}

/** The whole application on a database of its own: platform, server, worker, demo college. */
export interface TestBed {
  address: string
  platformAddress: string
  pool: Pool
  platformPool: Pool
  /** Of the MariaDB that was started for this test bed. */
  mariadbPid: number
  server: StartedProcess
  /** Starts a further worker. */
  startWorker: () => Promise<StartedProcess>
  /** Starts the server again on its port, or a further one on another port; 0 for a free one. */
  startServer: (port?: string) => Promise<StartedProcess>
  /** A further server with other settings, on a free port. */
  startServerWith: (
    more: Readonly<Record<string, string>>,
  ) => Promise<{ address: string; process: StartedProcess }>
  platform: () => StartedProcess
  startPlatform: () => Promise<void>
  /** What its processes are started with. */
  environment: Readonly<Record<string, string>>
  misbehave: (name: string, remaining: number) => Promise<void>
  /** Signs somebody in, at the server or at another one. */
  as: (email: string, at?: string) => Promise<Client>
  /** What the connector wants to see in the header of that name. */
  authorization: string
  connector: (
    path: string,
    more?: { method: string; body: object; key: string },
  ) => Promise<unknown>
  stop: () => Promise<void>
}
export interface Client {
  get: <T = unknown>(path: string) => Promise<Answer<T>>
  post: <T = unknown>(
    path: string,
    body?: unknown,
    headers?: Record<string, string>,
  ) => Promise<Answer<T>>
  cookie: string
}

const parsed = async <T>(response: Response): Promise<Answer<T>> => {
  const text = await response.text()
  try {
    return { status: response.status, body: JSON.parse(text) as T }
  } catch {
    return { status: response.status, body: text as T }
  }
}

const database = 'wickerframe'
/** What programs on a database are started with. */
const settingsFor = (mariadb: RunningMariadb) => ({
  DATABASE_PORT: String(mariadb.port),
  DATABASE_PASSWORD: mariadb.password,
  PLATFORM_TOKEN: randomBytes(24).toString('base64url'),
  INSTITUTION_TIME_ZONE: demoTimeZone,
  INSTITUTION_CLOCK_OFFSET_SECONDS: String(demoClockOffset(Date.now())),
  WICKERFRAME_DATABASE: database,
  WICKERFRAME_HOLD_ANSWERS: 'yes',
  PLATFORM_DATABASE: `${database}_platform`,
})
/** Loads the demo into a database in a folder, and ends what that needed. */
const loadInto =
  (courses: number) =>
  async (folder: string): Promise<void> => {
    const mariadb = await startPrivateMariadb(folder, { quickAndUnsafe: true })
    const common = settingsFor(mariadb)
    const platform = await startProcess('platform/src/main.ts', { ...common, PLATFORM_PORT: '0' })
    const environment = {
      ...common,
      WICKERFRAME_PORT: '0',
      WICKERFRAME_PUBLIC_URL: 'http://127.0.0.1:1',
      PLATFORM_URL: `http://127.0.0.1:${String(platform.said['listening'])}`,
      WORKER_CONCURRENCY: '2',
      PLATFORM_FOLLOW_SECONDS: '0',
    }
    // The server makes the schema.
    await (await startProcess('server/src/main.ts', environment)).stop()
    const worker = await startProcess('server/src/worker.ts', environment)
    await loadDemo({ ...process.env, ...environment }, courses, () => undefined)
    await worker.stop()
    await platform.stop()
    await mariadb.stop()
  }

/** @param followSeconds how often the platform is asked what changed; 0: never, so that a test is told nothing it did not ask for */
export const startTestBed = async ({
  courses = 6,
  leaseSeconds = 2,
  followSeconds = 0,
} = {}): Promise<TestBed> => {
  // A database of its own: files that run at once must not end one another's.
  const folder = mkdtempSync(join(tmpdir(), 'wf-bed-'))
  await demoDatabase(join(folder, 'mariadb'), courses, loadInto(courses))
  const mariadb = await startPrivateMariadb(join(folder, 'mariadb'), { quickAndUnsafe: true })
  const common = settingsFor(mariadb)
  const token = common.PLATFORM_TOKEN
  let platform = await startProcess('platform/src/main.ts', { ...common, PLATFORM_PORT: '0' })
  const platformPort = String(platform.said['listening'])
  const platformAddress = `http://127.0.0.1:${platformPort}`
  const serverPort = String(await freePort())
  const address = `http://127.0.0.1:${serverPort}`
  const environment = {
    ...common,
    WICKERFRAME_PUBLIC_URL: address,
    PLATFORM_URL: platformAddress,
    WORKER_LEASE_SECONDS: String(leaseSeconds),
    CONNECTOR_TIMEOUT_SECONDS: '15',
    WORKER_CONCURRENCY: '2',
    PLATFORM_FOLLOW_SECONDS: String(followSeconds),
  }
  const server = await startProcess('server/src/main.ts', {
    ...environment,
    WICKERFRAME_PORT: serverPort,
  })
  const started: StartedProcess[] = [server]
  const startWorker = async () => {
    const worker = await startProcess('server/src/worker.ts', environment)
    started.push(worker)
    return worker
  }
  const startServer = async (port = serverPort) => {
    const again = await startProcess('server/src/main.ts', {
      ...environment,
      WICKERFRAME_PORT: port,
    })
    started.push(again)
    return again
  }
  const startServerWith = async (more: Readonly<Record<string, string>>) => {
    const further = await startProcess('server/src/main.ts', {
      ...environment,
      WICKERFRAME_PORT: '0',
      ...more,
    })
    started.push(further)
    return { process: further, address: `http://127.0.0.1:${String(further.said['listening'])}` }
  }
  const pool = connect({
    host: '127.0.0.1',
    port: mariadb.port,
    user: 'root',
    password: mariadb.password,
    database,
  })

  const as = async (email: string, at = address): Promise<Client> => {
    const signIn = await fetch(`${at}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-wickerframe': '1' },
      body: JSON.stringify({ email, password: demoPassword }),
    })
    const cookie = signIn.headers.get('set-cookie')?.split(';')[0] ?? ''
    return {
      cookie,
      get: async (path) => parsed(await fetch(at + path, { headers: { cookie } })),
      post: async (path, body = {}, headers = {}) =>
        parsed(
          await fetch(at + path, {
            method: 'POST',
            headers: {
              cookie,
              'x-wickerframe': '1',
              'content-type': 'application/json',
              ...headers,
            },
            body:
              typeof body === 'string' || body instanceof Uint8Array
                ? (body as BodyInit)
                : JSON.stringify(body),
          }),
        ),
    }
  }
  const platformPool = connect(
    {
      host: '127.0.0.1',
      port: mariadb.port,
      user: 'root',
      password: mariadb.password,
      database: `${database}_platform`,
    },
    2,
  )
  return {
    environment,
    address,
    platformAddress,
    pool,
    platformPool,
    mariadbPid: mariadb.pid,
    server,
    startWorker,
    startServer,
    startServerWith,
    as,
    authorization: `Bearer ${token}`,
    platform: () => platform,
    startPlatform: async () => {
      platform = await startProcess('platform/src/main.ts', {
        ...common,
        PLATFORM_PORT: platformPort,
      })
    },
    misbehave: async (misbehaviour, remaining) => {
      const answer = await fetch(`${platformAddress}/misbehaviours`, {
        method: 'POST',
        body: new URLSearchParams({ name: misbehaviour, remaining: String(remaining) }),
        redirect: 'manual',
      })
      if (answer.status !== 303)
        throw new Error(`the platform did not take ${misbehaviour}: ${answer.status}`)
    },
    connector: async (path, more) =>
      (
        await fetch(`${platformAddress}/connector/v1${path}`, {
          method: more?.method ?? 'GET',
          headers: {
            authorization: `Bearer ${token}`,
            ...(more ? { 'content-type': 'application/json', 'idempotency-key': more.key } : {}),
          },
          ...(more ? { body: JSON.stringify(more.body) } : {}),
        })
      ).json(),
    stop: async () => {
      await Promise.all([...started, platform].map((program) => program.stop()))
      await Promise.all([pool.end(), platformPool.end()])
      await mariadb.discard()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** Asks again until it holds; fails with what was last seen after three minutes. */
export const until = async <T>(
  ask: () => Promise<T>,
  holds: (value: T) => boolean,
  seconds = 180,
): Promise<T> => {
  const end = Date.now() + seconds * 1000
  for (;;) {
    const value = await ask()
    if (holds(value)) return value
    if (Date.now() > end)
      throw new Error(
        `it did not come about in ${seconds} s; last seen: ${JSON.stringify(value).slice(0, 600)}`,
      )
    await new Promise((resolve) => setTimeout(resolve, 150))
  }
}
