import { existsSync } from 'node:fs'
import express, { type Express, type NextFunction, type Request, type Response } from 'express'
import helmet from 'helmet'
import type { Pool } from 'mysql2/promise'
import type { Logger } from 'pino'
import { databaseTrouble } from '@wickerframe/storage'
import { apiRoutes, type ApiRoute } from '@wickerframe/contract'
import type { Connector } from '../connector/client.ts'
import type { InstitutionClock } from '../clocks.ts'
import type { FileThreads } from '../files/fileThreads.ts'
import type { Person } from '../repositories/people.ts'
import type { Handler } from './handler.ts'
import { fileBody, jsonBody, takesFile } from './bodies.ts'
import { databaseAway, mustSay } from './away.ts'
import { HttpProblem } from './problem.ts'
import { Pulses } from './pulses.ts'
import {
  postAttestation,
  postFollowUp,
  postJoin,
  postNotThisWeek,
  postWaiver,
  postWaiverDecision,
} from './routes/care.ts'
import { getMends, postCourseMends, postMends } from './routes/mends.ts'
import { getMarkedPage, getPageDifference } from './routes/pageDifference.ts'
import { getConformance, getToday } from './routes/conformance.ts'
import {
  getCourse,
  getCourseFacts,
  getCourses,
  getItem,
  getReport,
  postStrengths,
  postVersion,
} from './routes/courses.ts'
import { postCourseValues, postMakeCourses, postNextTerm } from './routes/makeCourses.ts'
import { postRoster } from './routes/roster.ts'
import { postMerge, postUnmerge } from './routes/merges.ts'
import { getMessages, postMessageRead } from './routes/messages.ts'
import {
  getCoursePlan,
  getRehearsals,
  getRollouts,
  getShapes,
  postApprove,
  postDecisions,
  postDiscard,
  postRehearsal,
  postRollout,
  postUndo,
} from './routes/rollouts.ts'
import { command, getRun, getRunEvents, postChecks, postCourseCheck } from './routes/runs.ts'
import {
  getStandingRules,
  postStandingRule,
  postStandingRuleRemoved,
} from './routes/standingRules.ts'
import { getAudit } from './routes/audit.ts'
import { getHealth } from './routes/health.ts'
import {
  getMe,
  getTerms,
  personOf,
  postPassword,
  postSignIn,
  postSignOut,
  sessionStands,
} from './routes/session.ts'
import { getNames, postRenames } from './routes/names.ts'
import { getLibrary, houseTextPage, postLibrary, postRubricFile } from './routes/library.ts'
import {
  getComments,
  getComparison,
  getDraftRevision,
  getTemplate,
  getTemplates,
  getVersion,
  postCloseComment,
  postComment,
  postContributor,
  postEdits,
  postRelease,
  postRetire,
  postTakeOver,
  postTemplate,
  postUse,
} from './routes/templates.ts'
import {
  getCourseCalendar,
  getTerm,
  getTermCalendar,
  postCourseCalendar,
  postFreeDays,
  postTerm,
  postTermPreview,
} from './routes/terms.ts'

type Route = (typeof apiRoutes)[number]
type RouteId = { [R in Route as `${R['method']} ${R['path']}`]: Handler }

/** A handler for every route of the table; one without a handler, or the other way round, does not compile. */
const handlers: RouteId = {
  'get /api/health': getHealth,
  'post /api/sign-in': postSignIn,
  'post /api/sign-out': postSignOut,
  'post /api/password': postPassword,
  'get /api/audit': getAudit,
  'get /api/me': getMe,
  'get /api/terms': getTerms,
  'get /api/terms/:code': getTerm,
  'post /api/terms/:code/preview': postTermPreview,
  'post /api/terms/:code': postTerm,
  'get /api/terms/:code/calendar': getTermCalendar,
  'post /api/free-days': postFreeDays,
  'get /api/today': getToday,
  'get /api/templates': getTemplates,
  'post /api/templates': postTemplate,
  'get /api/templates/:key': getTemplate,
  'get /api/templates/:key/versions/:number': getVersion,
  'post /api/templates/:key/edits': postEdits,
  'get /api/templates/:key/revision': getDraftRevision,
  'get /api/templates/:key/compare': getComparison,
  'post /api/templates/:key/take-over': postTakeOver,
  'post /api/templates/:key/versions/:number/use': postUse,
  'post /api/templates/:key/versions/:number/retire': postRetire,
  'post /api/templates/:key/contributors': postContributor,
  'get /api/templates/:key/comments': getComments,
  'post /api/templates/:key/comments': postComment,
  'post /api/templates/:key/comments/:id/close': postCloseComment,
  'get /api/library': getLibrary,
  'post /api/library': postLibrary,
  'post /api/rubric-file': postRubricFile,
  'post /api/templates/:key/release': postRelease,
  'get /api/courses': getCourses,
  'post /api/roster': postRoster,
  'get /api/courses/:id': getCourse,
  'get /api/courses/:id/facts': getCourseFacts,
  'get /api/courses/:id/items/:item': getItem,
  'get /api/courses/:id/report': getReport,
  'get /api/courses/:id/calendar': getCourseCalendar,
  'post /api/courses/:id/calendar': postCourseCalendar,
  'post /api/courses/:id/version': postVersion,
  'get /api/rollouts': getRollouts,
  'post /api/rollouts': postRollout,
  'get /api/rollouts/:run/shapes': getShapes,
  'get /api/rollouts/:run/courses/:course': getCoursePlan,
  'post /api/rollouts/:run/decisions': postDecisions,
  'post /api/rollouts/:run/courses/:course/rehearse': postRehearsal,
  'post /api/rollouts/:run/undo': postUndo,
  'get /api/rehearsals': getRehearsals,
  'post /api/rehearsals/:rehearsal/discard': postDiscard,
  'get /api/standing-rules': getStandingRules,
  'post /api/standing-rules': postStandingRule,
  'post /api/standing-rules/:rule/remove': postStandingRuleRemoved,
  'post /api/courses/made': postMakeCourses,
  'post /api/courses/values': postCourseValues,
  'post /api/courses/:id/merge': postMerge,
  'post /api/courses/:id/unmerge': postUnmerge,
  'post /api/next-term': postNextTerm,
  'get /api/messages': getMessages,
  'post /api/messages/:message/read': postMessageRead,
  'post /api/courses/:id/strengths': postStrengths,
  'get /api/names': getNames,
  'post /api/renames': postRenames,
  'get /api/runs/:run': getRun,
  'get /api/runs/:run/events': getRunEvents,
  'post /api/runs/:run/approve': postApprove,
  'post /api/runs/:run/pause': command('pause'),
  'post /api/runs/:run/resume': command('resume'),
  'post /api/runs/:run/cancel': command('cancel'),
  'post /api/runs/:run/retry': command('retry'),
  'post /api/checks': postChecks,
  'post /api/courses/:id/check': postCourseCheck,
  'get /api/courses/:id/items/:item/difference': getPageDifference,
  'get /api/courses/:id/items/:item/marked': getMarkedPage,
  'post /api/courses/:id/joins': postJoin,
  'post /api/courses/:id/waivers': postWaiver,
  'post /api/courses/:id/waivers/:waiver': postWaiverDecision,
  'post /api/courses/:id/attestations': postAttestation,
  'post /api/courses/:id/follow-ups': postFollowUp,
  'post /api/courses/:id/not-this-week': postNotThisWeek,
  'post /api/courses/:id/mends': postCourseMends,
  'post /api/mends': postMends,
  'get /api/mends': getMends,
  'get /api/conformance': getConformance,
}

export interface AppSettings {
  pool: Pool
  connector: Connector
  files: FileThreads
  clock: InstitutionClock
  /** Where the built web application stands. */
  webFolder: string
  platformUrl: string
  secureCookies: boolean
  /** Proxies in front, whose word is taken for the client's address. */
  proxies: number
  log: Logger
}

const nobody: Person = { id: 0, email: '', name: '', role: 'instructor' }

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
  const { pool, connector, files, clock, platformUrl, secureCookies, log } = settings
  const pulses = new Pulses(pool)
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

  const register = (route: ApiRoute, handler: Handler) => {
    const body = takesFile.has(route.path) ? fileBody : jsonBody(route.path)
    const guard = async (request: Request, response: Response, next: NextFunction) => {
      response.set('Cache-Control', 'no-store')
      if (route.method === 'post' && !sameOrigin(request))
        throw new HttpProblem(
          403,
          'other-origin',
          'this request did not come from Wickerframe’s own pages',
        )
      const person = await mustSay(personOf(pool, request, secureCookies))
      if (route.roles !== 'anyone') {
        if (!person) throw new HttpProblem(401, 'not-signed-in', 'sign in first')
        if (!route.roles.includes(person.role))
          throw new HttpProblem(403, 'not-allowed', `a ${person.role} may not do this`)
      }
      response.locals['person'] = person ?? nobody
      next()
    }
    app[route.method](
      route.path,
      guard,
      ...(route.method === 'post' ? [body].flat() : []),
      async (request: Request, response: Response) => {
        const person: Person = response.locals['person']
        const answer = await handler({
          request,
          response,
          pool,
          connector,
          files,
          pulses,
          sessionStands: () => sessionStands(pool, request, secureCookies),
          person,
          now: clock.now(),
          today: clock.today(),
          platformUrl,
          secureCookies,
        })
        if (answer !== undefined) response.json(answer)
      },
    )
  }
  for (const route of apiRoutes)
    register(route, handlers[`${route.method} ${route.path}` as keyof RouteId])
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
