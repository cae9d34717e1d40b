import { existsSync } from 'node:fs'
import compression from 'compression'
import express, { type Express, type NextFunction, type Request, type Response } from 'express'
import helmet from 'helmet'
import type { Pool } from 'mysql2/promise'
import type { Logger } from 'pino'
import { contentPieces, databaseTrouble } from '@wickerframe/storage'
import { isMedia, may, routeNamed, routeNames, whoMay, type Route } from '@wickerframe/contract'
import type { Connector } from '../connector/client.ts'
import type { InstitutionClock } from '../start/clocks.ts'
import type { FileThreads } from '../files/fileThreads.ts'
import type { ReportWriter } from '../reports/reportWriter.ts'
import type { OutsideProvider } from '../people/outside/provider.ts'
import type { Person } from '../people/people.ts'
import { hasAnswered, type AnyHandler } from './handler.ts'
import { databaseAway, mustSay } from './away.ts'
import { HttpProblem } from './problem.ts'
import { Pulses } from '../runs/pulses.ts'
import { askedOf, bodyReaders } from './asked.ts'
import { handlerNamed } from './handlers.ts'
import { actingTo } from '../courses/visible.ts'
import { personOf, sessionStands } from '../people/routes.ts'
import { sendFile } from '../files/sendFile.ts'
import { houseFile } from '../library/library.ts'
import { houseTextPage } from '../library/routes.ts'

export interface AppSettings {
  pool: Pool
  connector: Connector
  files: FileThreads
  reports: ReportWriter
  clock: InstitutionClock
  /** Where the built web application stands. */
  webFolder: string
  platformUrl: string
  /** Where people reach this program. */
  publicUrl: string
  outside: OutsideProvider | null
  localAccounts: boolean
  /** Whether people are told by mail as well. */
  sendsMail: boolean
  secureCookies: boolean
  /** Proxies in front, whose word is taken for the client's address. */
  proxies: number
  log: Logger
  /** Aborted when the program ends: streams end then, so that it does not wait for them. */
  ending: AbortSignal
  /** Whether an answer that does not fit its schema fails: in tests and development. */
  holdAnswers: boolean
}

const nobody: Person = { id: 0, email: '', name: '', roles: [], departments: [] }

const answerProblem = (response: Response, { body, afterSeconds }: HttpProblem): void => {
  if (afterSeconds !== null) response.set('Retry-After', String(afterSeconds))
  response.status(body.status).type('application/problem+json').send(JSON.stringify(body))
}

/** Sent by our own pages only: another site cannot add the header without asking first, and is not answered when it asks. */
const sameOrigin = (request: Request): boolean => {
  const origin = request.get('origin')
  let host: string | null = null
  try {
    host = origin === undefined ? null : new URL(origin).host
  } catch {
    return false
  }
  return (
    request.get('x-wickerframe') === '1' && (origin === undefined || host === request.get('host'))
  )
}

export const makeApp = (settings: AppSettings): Express => {
  const { pool, connector, files, reports, clock, platformUrl, secureCookies, log } = settings
  const pulses = new Pulses(pool)
  settings.ending.addEventListener('abort', () => pulses.endAll())
  const app = express()
  app.disable('x-powered-by')
  app.set('etag', false)
  app.set('trust proxy', settings.proxies)
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:'],
          objectSrc: ["'none'"],
          frameSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: secureCookies,
      frameguard: { action: 'deny' },
    }),
  )

  // What is sent piece by piece, as it comes, is not held back to be compressed.
  app.use(
    compression({
      filter: (request, response) =>
        !/event-stream|x-ndjson/.test(String(response.getHeader('content-type'))) &&
        compression.filter(request, response),
    }),
  )

  const register = (name: string, route: Route, handler: AnyHandler) => {
    const guard = async (request: Request, response: Response, next: NextFunction) => {
      response.set('Cache-Control', 'no-store')
      if (route.method === 'post' && !sameOrigin(request))
        throw new HttpProblem(
          403,
          'other-origin',
          'this request did not come from Wickerframe’s own pages',
        )
      const person = await mustSay(personOf(pool, request, secureCookies))
      if (route.may !== 'anyone') {
        if (!person) throw new HttpProblem(401, 'not-signed-in', 'sign in first')
        // One's own account is there also for who has no role.
        if (route.may !== 'use account' && !may(person, route.may))
          throw new HttpProblem(403, 'not-allowed', `this is for ${whoMay(route.may)}`)
      }
      // Whoever has several roles acts in those that may do this: what they merely see otherwise is not theirs to act on.
      response.locals['person'] =
        person && route.may !== 'anyone' && route.may !== 'use account'
          ? actingTo(person, route.may)
          : (person ?? nobody)
      next()
    }
    app[route.method](
      route.path,
      guard,
      ...bodyReaders(route),
      async (request: Request, response: Response) => {
        const person: Person = response.locals['person']
        const answer = await handler({
          ...askedOf(route, request),
          request,
          response,
          pool,
          connector,
          files,
          reports,
          pulses,
          sessionStands: () => sessionStands(pool, request, secureCookies),
          person,
          may: route.may,
          now: clock.now(),
          today: clock.today(),
          timeZone: clock.timeZone,
          platformUrl,
          publicUrl: settings.publicUrl,
          outside: settings.outside,
          localAccounts: settings.localAccounts,
          sendsMail: settings.sendsMail,
          secureCookies,
        })
        if (answer === hasAnswered) return
        if (settings.holdAnswers && !isMedia(route.answer)) {
          const held = route.answer.safeParse(answer)
          if (!held.success) throw new Error(`${name}: not its answer: ${held.error.message}`)
        }
        response.json(answer)
      },
    )
  }
  for (const name of routeNames) register(name, routeNamed(name), handlerNamed(name))
  // Addresses that machines ask for are never answered with the page.
  app.use(['/api', '/healthz', '/readyz', '/metrics'], () => {
    throw new HttpProblem(404, 'not-found', 'there is no such address')
  })

  // Students read linked house texts here, without signing in.
  app.get('/house-texts/:key', async (request: Request, response: Response) => {
    const page = await houseTextPage(
      pool,
      String(request.params['key']),
      clock.today(),
      platformUrl,
    )
    if (!page) throw new HttpProblem(404, 'not-found', 'there is no such text')
    response
      .set('Cache-Control', 'no-cache')
      .set(
        'Content-Security-Policy',
        `sandbox allow-top-navigation-by-user-activation; default-src 'none'; style-src 'unsafe-inline'; img-src ${new URL(platformUrl).origin}; frame-ancestors 'none'`,
      )
      .type('html')
      .send(page)
  })

  // And what the library keeps current for all courses.
  app.get('/house-files/:key', async (request: Request, response: Response) => {
    const file = await houseFile(pool, String(request.params['key']))
    const pieces = file && (await contentPieces(pool, file.content))
    if (!pieces) throw new HttpProblem(404, 'not-found', 'there is no such file')
    response.set('Cache-Control', 'no-cache').set('ETag', `"${file.content}"`)
    if (request.fresh) return void response.status(304).end()
    await sendFile(response, file.fileName, pieces)
  })

  const built = settings.webFolder
  if (existsSync(built)) {
    app.use(
      express.static(built, {
        index: false,
        setHeaders: (response, path) =>
          void response.setHeader(
            'Cache-Control',
            path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
          ),
      }),
    )
    app.get('/{*any}', (_, response) =>
      response.set('Cache-Control', 'no-cache').sendFile(`${built}/index.html`),
    )
  }

  app.use((cause: unknown, request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) {
      log.error({ err: cause, path: request.path }, 'answer cut off')
      return next(cause)
    }
    if (cause instanceof HttpProblem) return answerProblem(response, cause)
    const trouble = databaseTrouble(cause)
    if (trouble !== null) {
      log.warn({ err: cause, path: request.path }, `the database is ${trouble}`)
      return answerProblem(response, databaseAway(trouble))
    }
    const status =
      typeof cause === 'object' &&
      cause !== null &&
      'status' in cause &&
      typeof cause.status === 'number' &&
      cause.status < 500
        ? cause.status
        : 500
    if (status === 413)
      return answerProblem(
        response,
        new HttpProblem(413, 'too-large', 'what was sent is too large'),
      )
    if (status < 500)
      return answerProblem(
        response,
        new HttpProblem(
          status,
          'unusable-input',
          'what was sent could not be read; JSON is wanted here',
        ),
      )
    log.error({ err: cause, path: request.path }, 'request')
    answerProblem(
      response,
      new HttpProblem(500, 'failed', 'something failed on our side; nothing was changed'),
    )
  })
  return app
}
