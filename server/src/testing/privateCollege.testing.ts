import { createServer } from 'node:http'
import { pino } from 'pino'
import type { CheckResult, Course, Template } from '@wickerframe/core'
import { exampleCourse, exampleFacts, exampleTemplate } from '@wickerframe/core/testing'
import type { CourseDetail } from '@wickerframe/contract'
import type { RosterCourse } from '@wickerframe/interchange'
import { checkStored, foreseeCourses } from '../checks/checkThread.ts'
import { fileReaders } from '../files/fileReaders.ts'
import { FileGivenUp, type FileThreads } from '../files/fileThreads.ts'
import { readingFiles } from '../files/readShownFiles.ts'
import { makeApp } from '../http/app.ts'
import type { OutsideProvider } from '../people/outside/provider.ts'
import type { Person } from '../people/people.ts'
import { beginSession } from '../people/sessions.ts'
import { claimTask, finishTask, postponeTask } from '../queue/tasks.ts'
import { importRoster } from '../roster/roster.ts'
import { closeFinishedRun } from '../runs/closing.ts'
import { reportsHere } from '../reports/reportWriter.ts'
import type { InstitutionDay, InstitutionInstant } from '../start/clocks.ts'
import { stopServer } from '../start/stopServer.ts'
import { addTemplate, releaseDraft } from '../templates/templates.ts'
import { putTerm } from '../terms/terms.ts'
import { carryOut } from '../work.ts'
import { heldPlatform, type HeldPlatform } from './heldPlatform.testing.ts'
import { startPrivateSchema, type PrivateSchema } from './privateSchema.testing.ts'

/** What the application answered. */
export interface Answered {
  status: number
  // What a test expects says what it is.
  // oxlint-disable-next-line typescript/no-explicit-any
  body: any
  headers: Headers
}
export interface Client {
  get: (path: string) => Promise<Answered>
  post: (path: string, body?: unknown) => Promise<Answered>
  /** Sends a file. */
  send: (path: string, file: string | Uint8Array, type?: string) => Promise<Answered>
}

/** A small college on a schema of a test file’s own, with everything in this one process: the application, the work, a platform. */
export interface PrivateCollege extends PrivateSchema {
  platform: HeldPlatform
  /** Of every as-of day and stamp that the application takes from the institution’s clock. */
  today: string
  /** Somebody who is signed in. */
  as: (person: Person) => Promise<Client>
  /** Somebody who is not. */
  stranger: Client
  /** Signs people in by an identity provider from now on, and by passwords or not. */
  outside: (provider: OutsideProvider) => void
  localAccounts: (may: boolean) => void
  /** Brings a template in and releases its first version. */
  release: (template: Template, by: Person) => Promise<void>
  /** A course of the roster that the platform has as well. @returns its id */
  addCourse: (course: Course, more?: Partial<RosterCourse>) => Promise<number>
  /** Works off whatever tasks are due; those that are put off are due at once. At most so many times each. */
  work: (mostAttempts?: number) => Promise<void>
  /** Where the application listens. */
  address: string
}

const filesRead: FileThreads = {
  read: async (kind, bytes, options) => {
    try {
      const read: (bytes: Uint8Array, options: never) => unknown = fileReaders[kind]
      return (await read(bytes, options as never)) as never
    } catch (cause) {
      throw new FileGivenUp(String(cause))
    }
  },
  stop: async () => undefined,
}

export const startPrivateCollege = async (today = '2026-09-16'): Promise<PrivateCollege> => {
  const schema = await startPrivateSchema()
  const { pool } = schema
  const now = `${today}T12:00:00.000Z` as InstitutionInstant
  const platform = heldPlatform(now)
  const connector = readingFiles(platform.connector, pool, filesRead)
  const clock = {
    today: () => today as InstitutionDay,
    now: () => now,
    timeZone: 'America/Halifax',
  }
  const signIn: { outside: OutsideProvider | null; local: boolean } = { outside: null, local: true }
  const ending = new AbortController()
  const server = createServer(
    makeApp({
      pool,
      connector,
      files: filesRead,
      reports: reportsHere,
      clock,
      webFolder: '/nowhere',
      platformUrl: 'http://127.0.0.1:1',
      publicUrl: 'https://wickerframe.example',
      get outside() {
        return signIn.outside
      },
      get localAccounts() {
        return signIn.local
      },
      sendsMail: true,
      secureCookies: false,
      proxies: 0,
      holdAnswers: true,
      ending: ending.signal,
      log: pino({ level: 'silent' }),
    }),
  )
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const bound = server.address()
  const address = `http://127.0.0.1:${typeof bound === 'object' && bound ? bound.port : 0}`

  const facts = exampleFacts()
  await putTerm(pool, facts.term)
  let line = 0

  const ask = async (path: string, cookie: string, how: RequestInit = {}): Promise<Answered> => {
    const response = await fetch(address + path, {
      ...how,
      headers: { cookie, 'x-wickerframe': '1', ...(how.headers as Record<string, string>) },
    })
    const text = await response.text()
    const isJson = /json/.test(response.headers.get('content-type') ?? '')
    return {
      status: response.status,
      headers: response.headers,
      body: isJson ? JSON.parse(text) : text,
    }
  }
  const clientWith = (cookie: string): Client => {
    const post = (path: string, body: string | Uint8Array, type: string) =>
      ask(path, cookie, {
        method: 'POST',
        body: typeof body === 'string' ? body : Buffer.from(body),
        headers: { 'content-type': type },
      })
    return {
      get: (path) => ask(path, cookie),
      post: (path, body = {}) => post(path, JSON.stringify(body), 'application/json'),
      send: (path, file, type = 'text/csv') => post(path, file, type),
    }
  }
  return {
    ...schema,
    platform,
    today,
    address,
    as: async (person) => clientWith(`wickerframe-session=${await beginSession(pool, person.id)}`),
    stranger: clientWith(''),
    outside: (provider) => {
      signIn.outside = provider
    },
    localAccounts: (may) => {
      signIn.local = may
    },
    release: async (template, by) => {
      const added = await addTemplate(pool, template, by.email)
      if (added.state !== 'added') throw new Error(`the template was not added: ${added.state}`)
      const released = await releaseDraft(pool, template.key, 0, 'As agreed', by)
      if (released.state !== 'released') throw new Error(`not released: ${released.state}`)
    },
    addCourse: async (course, more = {}) => {
      platform.courses.set(course.id, course)
      await importRoster(
        pool,
        [
          {
            line: ++line,
            platformId: course.id,
            code: facts.code,
            title: facts.title,
            department: facts.department,
            term: facts.term.code,
            session: null,
            modality: facts.modality,
            weeks: facts.weeks,
            status: 'teaching',
            classSectionKind: 'own',
            classSections: [...facts.classSections],
            instructors: facts.instructors.map(({ name, email }) => ({ name, email })),
            duties: null,
            ...more,
          },
        ],
        () => facts.topics,
        'registrar@kestrelsound.example',
      )
      const [row] = await schema.rows<{ id: number }>(
        `SELECT id
         FROM courses
         WHERE platform_id = ?`,
        [course.id],
      )
      return row?.id ?? 0
    },
    work: async (mostAttempts = 5) => {
      for (;;) {
        const task = await claimTask(pool, 60, 'this test')
        if (!task) return
        const outcome = await carryOut({
          pool,
          connector,
          checkCourse: async (id, asOf, day) =>
            (await checkStored(pool, [id], asOf, day)).get(id) ?? { state: 'gone' },
          foreseeCourse: async (id, run, day) =>
            (await foreseeCourses(pool, [id], run, day)).get(id) ?? { state: 'gone' },
          task,
          today: clock.today(),
          publicUrl: address,
          lease: new AbortController().signal,
        })
        if (outcome.state === 'failed' || outcome.state === 'held')
          await finishTask(pool, task, outcome.state, outcome.message)
        if (outcome.state === 'waits') await postponeTask(pool, task, 0, outcome.message, false)
        if (outcome.state === 'later')
          await (task.attempts < mostAttempts
            ? postponeTask(pool, task, 0, outcome.message)
            : finishTask(pool, task, 'failed', outcome.message))
        await closeFinishedRun(pool, task.runId)
      }
    },
    stop: async () => {
      ending.abort()
      await stopServer(server, 5)
      await schema.stop()
    },
  }
}

export interface CheckedCollege extends PrivateCollege {
  /** The id of its course, and where the application answers for it. */
  course: number
  about: string
  people: Record<'designer' | 'instructor' | 'reviewer' | 'administrator', Client>
  /** Has the course read and checked again, as it was deployed but for what is changed here. */
  readWith: (edit?: (course: Course) => void) => Promise<void>
  /** What the course’s page tells now. */
  detail: (query?: string) => Promise<CourseDetail>
  result: (query?: string) => Promise<CheckResult>
}

/** The college with the example’s template released, its course put under it, read and checked, and somebody of each role. */
export const startCheckedCollege = async (): Promise<CheckedCollege> => {
  const college = await startPrivateCollege()
  const person = await college.person('designer')
  const [teaching] = exampleFacts().instructors
  const people = {
    designer: await college.as(person),
    instructor: await college.as(await college.person('instructor', teaching?.email.split('@')[0])),
    reviewer: await college.as(await college.person('reviewer')),
    administrator: await college.as(await college.person('administrator')),
  }
  await college.release(exampleTemplate(), person)
  const course = await college.addCourse(exampleCourse().course)
  const about = `/api/courses/${course}`
  const { designer } = people
  const well = ({ status, body }: Answered): void => {
    if (status !== 200) throw new Error(`${status}: ${JSON.stringify(body)}`)
  }
  well(await designer.post(`${about}/version`, { template: exampleTemplate().key, version: 1 }))
  let revision = 1
  const readWith = async (edit: (course: Course) => void = () => undefined) => {
    const edited = { ...exampleCourse().course, revision: String(++revision) }
    edit(edited)
    college.platform.courses.set(edited.id, edited)
    well(await designer.post(`${about}/check`))
    await college.work()
  }
  await readWith()
  const detail = async (query = ''): Promise<CourseDetail> =>
    (await designer.get(about + query)).body
  return {
    ...college,
    course,
    about,
    people,
    readWith,
    detail,
    result: async (query) => {
      const { result } = await detail(query)
      if (!result) throw new Error('the course has been checked')
      return result
    },
  }
}
