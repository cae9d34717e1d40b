import { createHash, timingSafeEqual } from 'node:crypto'
import express, {
  Router,
  type NextFunction,
  type Request,
  type RequestHandler,
  type Response,
} from 'express'
import type { Pool } from 'mysql2/promise'
import type { z } from 'zod'
import {
  ImageName,
  imageKindOf,
  mediaTypeOf,
  readDocument,
  readJson,
  usualDepth,
} from '@wickerframe/core'
import {
  ChangeSet,
  CopyCourse,
  CreateCourse,
  EnrolPeople,
  SetStatus,
  type ProblemDetails,
} from '@wickerframe/contract'
import { change, firstRow } from '@wickerframe/storage'
import type { Courses } from './courses.ts'
import type { Misbehaviours } from './misbehave.ts'

const keepFile = (pool: Pool, name: string, mediaType: string, bytes: Buffer) =>
  change(
    pool,
    `INSERT IGNORE INTO assets (file_name, media_type, bytes)
     VALUES (?, ?, ?)`,
    [name, mediaType, bytes],
  )
const bytesOfFile = async (pool: Pool, name: string): Promise<Buffer | undefined> =>
  (
    await firstRow<{ bytes: Buffer }>(
      pool,
      `SELECT bytes
       FROM assets
       WHERE file_name = ?`,
      [name],
    )
  )?.bytes

const problem = (response: Response, status: number, code: string, detail: string): void => {
  const body: ProblemDetails = {
    type: `urn:wickerframe:problem:${code}`,
    title: code.replaceAll('-', ' '),
    status,
    detail,
    code,
  }
  response.status(status).type('application/problem+json').send(JSON.stringify(body))
}

const digest = (text: string): Buffer => createHash('sha256').update(text).digest()
const sameToken = (given: string, wanted: string): boolean =>
  timingSafeEqual(digest(given), digest(wanted))

/** Reads a JSON body; how deep and how large it is is counted before it is parsed. */
const json = (limit: string): RequestHandler<Record<string, string>> => {
  const text = express.text({ type: 'application/json', limit, defaultCharset: 'utf-8' })
  return (request, response, next) =>
    text(request, response, (cause?: unknown) => {
      if (cause) return next(cause)
      const read = readJson(String(request.body ?? ''), { depth: usualDepth, values: 400_000 })
      if (!read.ok)
        return problem(response, 400, 'unusable-body', `found ${read.problems[0]?.found}`)
      request.body = read.value
      next()
    })
}

const readBody = <S extends z.ZodType>(
  schema: S,
  request: Request,
  response: Response,
): z.output<S> | null => {
  const read = readDocument(schema, request.body)
  if (read.ok) return read.value
  const first = read.problems[0]
  problem(
    response,
    400,
    'unusable-body',
    `at ${first?.path || '/'}: found ${first?.found}; expected ${first?.expected}`,
  )
  return null
}

/** The connector contract over the practice platform's courses, with its misbehaviours in front. */
export const connectorRoutes = (
  courses: Courses,
  misbehaviours: Misbehaviours,
  pool: Pool,
  token: string,
): Router => {
  const router = Router()

  router.use(async (request: Request, response: Response, next: NextFunction) => {
    if (!sameToken(request.get('authorization') ?? '', `Bearer ${token}`))
      return problem(response, 401, 'no-token', 'the connector’s token is missing or wrong')
    const slow = await misbehaviours.level('slow-answers')
    if (slow > 0) await new Promise((resolve) => setTimeout(resolve, Math.min(slow, 60_000)))
    if (await misbehaviours.take('too-many-requests')) {
      response.set('Retry-After', '1')
      return problem(response, 429, 'too-many-requests', 'ask again in a second')
    }
    if (await misbehaviours.take('server-error'))
      return problem(response, 500, 'server-error', 'the platform is having a bad day')
    next()
  })

  router.get('/courses', async (request, response) => {
    const after = Number(request.query['after'] ?? 0)
    if (!Number.isSafeInteger(after) || after < 0)
      return problem(response, 400, 'unusable-cursor', 'after is a cursor this platform gave, or 0')
    response.json(await courses.list(after, 500))
  })
  router.post('/courses', json('10kb'), async (request, response) => {
    const body = readBody(CreateCourse, request, response)
    if (body) response.json(await courses.create(body.id, body.name))
  })
  const orNoCourse = (response: Response, id: string, found: unknown): void => {
    if (found === null) problem(response, 404, 'no-course', `there is no course ${id}`)
    else response.json(found)
  }
  router.post('/courses/:id/enrolments', json('100kb'), async (request, response) => {
    const id = String(request.params['id'])
    const body = readBody(EnrolPeople, request, response)
    if (body) orNoCourse(response, id, await courses.enrol(id, body.people))
  })
  router.post('/courses/:id/status', json('10kb'), async (request, response) => {
    const id = String(request.params['id'])
    const body = readBody(SetStatus, request, response)
    if (body) orNoCourse(response, id, await courses.setStatus(id, body.status))
  })
  router.post('/rehearsals', json('10kb'), async (request, response) => {
    const body = readBody(CopyCourse, request, response)
    if (body) orNoCourse(response, body.of, await courses.rehearse(body.id, body.of))
  })
  router.post('/rehearsals/:id/discard', async (request, response) => {
    if (await courses.discard(request.params.id)) response.json({ discarded: true })
    else problem(response, 404, 'no-rehearsal', `there is no copy ${request.params.id}`)
  })
  router.get('/courses/:id/snapshot', async (request, response) => {
    const other = (await misbehaviours.take('wrong-course'))
      ? (await courses.list(0, 2)).courses.find((one) => one.id !== request.params.id)
      : undefined
    const course = await courses.snapshot(other?.id ?? request.params.id)
    if (course) response.json(course)
    else problem(response, 404, 'no-course', `there is no course ${request.params.id}`)
  })
  router.post('/courses/:id/change-sets', json('20mb'), async (request, response) => {
    const key = request.get('idempotency-key') ?? ''
    if (!/^[\w-]{8,100}$/.test(key))
      return problem(
        response,
        400,
        'no-key',
        'an Idempotency-Key of 8 to 100 letters, digits, - and _',
      )
    const body = readBody(ChangeSet, request, response)
    if (!body) return
    const id = String(request.params['id'])
    const strip = (await misbehaviours.level('strip-attributes')) > 0
    if (await misbehaviours.take('edit-in-between'))
      await courses.edit(id, [{ change: 'set-course', label: `edited ${key.slice(0, 8)}` }], strip)
    const outcome = await courses.apply(id, key, body, strip)
    if ('refused' in outcome)
      return problem(response, outcome.refused.status, outcome.refused.code, outcome.refused.detail)
    if (await misbehaviours.take('lost-answer')) return void response.destroy()
    if (await misbehaviours.take('never-answers')) return
    response.json(outcome.done)
  })
  router.get(
    '/keys/:key',
    async (request, response) => void response.json(await courses.fate(request.params.key)),
  )
  router.post(
    '/keys/:key/void',
    async (request, response) => void response.json(await courses.voidKey(request.params.key)),
  )
  router.put(
    '/assets/:fileName',
    express.raw({ type: '*/*', limit: '2mb' }),
    async (request, response) => {
      const fileName = request.params['fileName'] ?? ''
      const name = ImageName.safeParse(fileName)
      if (!name.success)
        return problem(
          response,
          400,
          'unusable-name',
          `expected ${name.error.issues[0]?.message ?? 'a file name'}`,
        )
      const bytes: unknown = request.body
      if (!Buffer.isBuffer(bytes) || bytes.length === 0)
        return problem(response, 400, 'no-bytes', 'the bytes of the image as the body')
      const kind = imageKindOf(bytes)
      if (!kind)
        return problem(response, 400, 'unusable-image', 'the bytes of an SVG, PNG, JPEG or WebP')
      await keepFile(pool, fileName, mediaTypeOf[kind], bytes)
      // Other pages show what is kept under this name.
      if (!(await bytesOfFile(pool, fileName))?.equals(bytes))
        return problem(
          response,
          409,
          'name-taken',
          'another image is kept under this file name; expected another name',
        )
      response.json({ url: `/files/${fileName}` })
    },
  )
  return router
}
