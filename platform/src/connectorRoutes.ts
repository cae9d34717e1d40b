import { createHash, timingSafeEqual } from 'node:crypto'
import { pipeline } from 'node:stream/promises'
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
  ContentId,
  ImageName,
  imageKindOf,
  mediaTypeOf,
  readDocument,
  readJson,
  usualDepth,
  type Problem,
  mapCourse,
  type Course,
} from '@wickerframe/core'
import {
  connectorOperations,
  isMedia,
  type ConnectorOperation,
  type ConnectorParametersOf,
  type ProblemDetails,
} from '@wickerframe/contract'
import {
  bytesKept,
  change,
  contentPieces,
  firstRow,
  forgetContent,
  keepContent,
} from '@wickerframe/storage'
import { fileIn, filesOf } from './files.ts'
import type { Courses } from './courses.ts'
import type { Misbehaviours } from './misbehave.ts'
import { readerName } from './readerName.ts'

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

/** @param code of what of the request could not be read */
const unusable = (response: Response, code: string, [first]: readonly Problem[]): void =>
  problem(
    response,
    400,
    code,
    `at ${first?.path || '/'}: found ${first?.found}; expected ${first?.expected}`,
  )

const digest = (text: string): Buffer => createHash('sha256').update(text).digest()
const sameToken = (given: string, wanted: string): boolean =>
  timingSafeEqual(digest(given), digest(wanted))

/** Reads the body that an operation takes; how deep and how large JSON is is counted before it is parsed. */
const bodyReader = ({ body, mostBytes: limit }: ConnectorOperation): RequestHandler[] => {
  if (body === undefined || (isMedia(body) && body.streamed)) return []
  if (isMedia(body)) return [express.raw({ type: '*/*', limit })]
  const text = express.text({ type: 'application/json', limit, defaultCharset: 'utf-8' })
  return [
    (request, response, next) =>
      text(request, response, (cause?: unknown) => {
        if (cause) return next(cause)
        const read = readJson(String(request.body ?? ''), { depth: usualDepth, values: 400_000 })
        if (!read.ok)
          return problem(response, 400, 'unusable-body', `found ${read.problems[0]?.found}`)
        request.body = read.value
        next()
      }),
  ]
}

/** What was asked of an operation, read by its definition. */
interface Asked<O extends ConnectorOperation> {
  at: ConnectorParametersOf<O>
  query: O['query'] extends z.ZodType ? z.output<O['query']> : undefined
  body: O['body'] extends z.ZodType ? z.output<O['body']> : unknown
  request: Request
  response: Response
}

/** What this platform keeps to itself, as some do. */
interface Hides {
  questions: boolean
  files: boolean
}
/** A course as the connector is told it. */
const told = (course: Course, hides: Hides): Course => {
  const shown = mapCourse(course, ({ questions, file, ...others }) => ({
    ...others,
    ...(questions && !hides.questions ? { questions } : {}),
    ...(file !== undefined && !hides.files ? { file } : {}),
  }))
  return hides.files ? shown : { ...shown, files: filesOf(course) }
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

  const hides = async (): Promise<Hides> => ({
    questions: (await misbehaviours.level('hide-questions')) > 0,
    files: (await misbehaviours.level('hide-files')) > 0,
  })
  /** Answers an operation of the contract at its method and path, with what was asked read by its schemas. */
  const on = <O extends ConnectorOperation>(
    operation: O,
    handle: (asked: Asked<O>) => Promise<void>,
  ): void => {
    router[operation.method](
      operation.path,
      ...bodyReader(operation),
      async (request: Request, response: Response) => {
        const query = operation.query ? readDocument(operation.query, request.query) : null
        if (query?.ok === false) return unusable(response, 'unusable-query', query.problems)
        const body =
          operation.body !== undefined && !isMedia(operation.body)
            ? readDocument(operation.body, request.body)
            : null
        if (body?.ok === false) return unusable(response, 'unusable-body', body.problems)
        // What stands in the address is named by the path of the operation; its query and body were read by its schemas.
        const asked = {
          at: request.params,
          query: query?.value,
          body: body ? body.value : request.body,
          request,
          response,
        } as unknown as Asked<O>
        await handle(asked)
      },
    )
  }
  const orNoCourse = (response: Response, id: string, found: unknown): void => {
    if (found === null) problem(response, 404, 'no-course', `there is no course ${id}`)
    else response.json(found)
  }

  on(connectorOperations.listCourses, async ({ query, response }) => {
    const hidesName = (await misbehaviours.level('no-reader-name')) > 0
    if (!(await courses.gaveCursor(query.after)))
      return problem(
        response,
        400,
        'unknown-cursor',
        'a cursor that this platform gave, or 0 for all courses',
      )
    response.json({
      ...(await courses.list(query.after, 500)),
      readerName: hidesName ? null : readerName,
    })
  })
  on(connectorOperations.createCourse, async ({ body, response }) => {
    response.json(await courses.create(body.id, body.name))
  })
  on(connectorOperations.enrolPeople, async ({ at, body, response }) =>
    orNoCourse(response, at.course, await courses.enrol(at.course, body.people)),
  )
  on(connectorOperations.setStatus, async ({ at, body, response }) =>
    orNoCourse(response, at.course, await courses.setStatus(at.course, body.status)),
  )
  on(connectorOperations.rehearse, async ({ body, response }) =>
    orNoCourse(response, body.of, await courses.rehearse(body.id, body.of)),
  )
  on(connectorOperations.discardRehearsal, async ({ at, response }) => {
    if (await courses.discard(at.rehearsal)) response.json({ discarded: true })
    else problem(response, 404, 'no-rehearsal', `there is no copy ${at.rehearsal}`)
  })
  on(connectorOperations.readSnapshot, async ({ at, response }) => {
    const other = (await misbehaviours.take('wrong-course'))
      ? (await courses.list(0, 2)).courses.find((course) => course.id !== at.course)
      : undefined
    const course = await courses.snapshot(other?.id ?? at.course)
    orNoCourse(response, at.course, course && told(course, await hides()))
  })
  on(connectorOperations.applyChangeSet, async ({ at, body, request, response }) => {
    const idempotencyKey = request.get('idempotency-key') ?? ''
    if (!/^[\w-]{8,100}$/.test(idempotencyKey))
      return problem(
        response,
        400,
        'no-key',
        'an Idempotency-Key of 8 to 100 letters, digits, - and _',
      )
    const dropped = await misbehaviours.dropped()
    if (await misbehaviours.take('edit-in-between'))
      await courses.edit(
        at.course,
        [{ change: 'set-course', label: `edited ${idempotencyKey.slice(0, 8)}` }],
        dropped,
      )
    const outcome = await courses.apply(at.course, idempotencyKey, body, dropped)
    if ('refused' in outcome)
      return problem(response, outcome.refused.status, outcome.refused.code, outcome.refused.detail)
    if (await misbehaviours.take('lost-answer')) return void response.destroy()
    if (await misbehaviours.take('never-answers')) return
    const { course } = outcome.done
    response.json({ ...outcome.done, course: told(course, await hides()) })
  })
  on(connectorOperations.keyFate, async ({ at, response }) => {
    const fate = await courses.fate(at.key)
    if (fate.state !== 'applied') return void response.json(fate)
    const course = told(fate.answer.course, await hides())
    response.json({ ...fate, answer: { ...fate.answer, course } })
  })
  on(connectorOperations.voidKey, async ({ at, response }) => {
    response.json(await courses.voidKey(at.key))
  })
  on(connectorOperations.putAsset, async ({ at: { fileName }, body: bytes, response }) => {
    const name = ImageName.safeParse(fileName)
    if (!name.success)
      return problem(
        response,
        400,
        'unusable-name',
        `expected ${name.error.issues[0]?.message ?? 'a file name'}`,
      )
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
  })
  const isContent = (response: Response, content: string): boolean => {
    if (ContentId.safeParse(content).success) return true
    problem(response, 400, 'unusable-content', 'expected a SHA-256 in 64 hexadecimal digits')
    return false
  }
  on(connectorOperations.hasContent, async ({ at: { content }, response }) => {
    if (isContent(response, content))
      response.json({ held: (await bytesKept(pool, content)) !== null })
  })
  on(connectorOperations.putContent, async ({ at: { content }, request, response }) => {
    if (!isContent(response, content)) return
    const kept = await keepContent(pool, request, connectorOperations.putContent.mostBytes)
    if (kept.state === 'too-large')
      return problem(response, 413, 'too-large', 'the file is larger than is taken here')
    if (kept.state === 'kept' && kept.content === content) return void response.json({ content })
    if (kept.state === 'kept' && kept.isNew) await forgetContent(pool, kept.content)
    problem(response, 400, 'unusable-content', 'the bytes are not those of that SHA-256')
  })
  on(connectorOperations.readContent, async ({ at, response }) => {
    const course = await courses.snapshot(at.course)
    const pieces = course && fileIn(course, at.content) && (await contentPieces(pool, at.content))
    if (!pieces) return problem(response, 404, 'no-file', 'the course has no such file')
    response.type('application/octet-stream')
    await pipeline(pieces, response)
  })
  return router
}
