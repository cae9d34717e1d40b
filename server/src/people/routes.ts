import type { Me, sessionRoutes } from '@wickerframe/contract'
import type { HandlersOf, Situation } from '../http/handler.ts'
import type { CookieOptions, Request } from 'express'
import type { Pool } from 'mysql2/promise'
import { verify } from '@node-rs/argon2'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { changePassword, findWithPassword, type Person } from './people.ts'
import { beginSession, endSession, endSessionsOf, personOfSession } from './sessions.ts'
import { windowMinutes } from './signInTries.ts'
import { signIn } from './signIn.ts'
import { HttpProblem } from '../http/problem.ts'

/** On TLS the browser itself holds a cookie so named to this host, this path and TLS (RFC 6265bis, 4.1.3.2). */
const cookieName = (name: string, secure: boolean): string =>
  `${secure ? '__Host-' : ''}wickerframe-${name}`
const cookieOptions = (secure: boolean): CookieOptions => ({
  httpOnly: true,
  sameSite: 'strict',
  secure,
  path: '/',
})
const deviceMilliseconds = 180 * 24 * 3600 * 1000

const cookieIn = (request: Request, name: string, secure: boolean): string | null =>
  (request.get('cookie') ?? '')
    .split(';')
    .map((part) => part.trim().split('='))
    .find(([key]) => key === cookieName(name, secure))?.[1] ?? null

/** Who is signed in with the request's cookie. */
export const personOf = async (
  pool: Pool,
  request: Request,
  secure: boolean,
): Promise<Person | null> => {
  const token = cookieIn(request, 'session', secure)
  return token === null ? null : personOfSession(pool, token)
}

/** Whether the session of a request still stands; asking does not keep it alive. */
export const sessionStands = async (
  pool: Pool,
  request: Request,
  secure: boolean,
): Promise<boolean> => {
  const token = cookieIn(request, 'session', secure)
  return token !== null && (await personOfSession(pool, token, { marking: false })) !== null
}

const meOf = (person: Person, today: string): Me => ({
  name: person.name,
  email: person.email,
  role: person.role,
  today,
})

const forgetCookie = ({ response, secureCookies }: Situation): void => {
  response.clearCookie(cookieName('session', secureCookies), cookieOptions(secureCookies))
}

export const sessionHandlers: HandlersOf<typeof sessionRoutes> = {
  signIn: async ({ request, response, pool, today, secureCookies, body }) => {
    const { email, password } = body
    const result = await signIn(pool, {
      email,
      password,
      client: request.ip ?? '',
      device: cookieIn(request, 'device', secureCookies),
    })
    if (result.state === 'throttled')
      throw new HttpProblem(
        429,
        'too-many-attempts',
        `too many attempts; try again in ${windowMinutes} minutes`,
        {},
        windowMinutes * 60,
      )
    if (result.state !== 'signed-in')
      throw new HttpProblem(401, 'wrong-sign-in', 'the address or the password is not right')
    const options = cookieOptions(secureCookies)
    response.cookie(cookieName('session', secureCookies), result.token, options)
    response.cookie(cookieName('device', secureCookies), result.device, {
      ...options,
      maxAge: deviceMilliseconds,
    })
    return meOf(result.person, today)
  },
  /** Ends this session, or all of the person's. */
  signOut: async (handling) => {
    const { request, pool, person, secureCookies, body } = handling
    const { everywhere } = body
    const token = cookieIn(request, 'session', secureCookies)
    if (token !== null && person.id > 0)
      await inTransaction(pool, async (database) => {
        if (everywhere) await endSessionsOf(database, person.id)
        else await endSession(database, token)
        await recordAudit(database, {
          who: person.email,
          what: everywhere ? 'signed out everywhere' : 'signed out',
          subject: person.email,
        })
      })
    forgetCookie(handling)
    return {}
  },
  /** Changes one's own password. Every session ends but this one, which goes on under a new token. */
  changePassword: async (handling) => {
    const { response, pool, person, secureCookies, body } = handling
    const { was, password } = body
    const found = await findWithPassword(pool, person.email)
    if (!found || !(await verify(found.password_hash, was)))
      throw new HttpProblem(403, 'wrong-password', 'the password you have now is not that one')
    const token = await inTransaction(pool, async (database) => {
      await changePassword(database, person.id, password)
      await endSessionsOf(database, person.id)
      await recordAudit(database, {
        who: person.email,
        what: 'password changed',
        subject: person.email,
      })
      return beginSession(database, person.id)
    })
    response.cookie(cookieName('session', secureCookies), token, cookieOptions(secureCookies))
    return {}
  },
  whoAmI: async ({ person, today }) => meOf(person, today),
}
