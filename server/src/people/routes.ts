import type { Me, sessionRoutes } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'
import type { Request } from 'express'
import type { Pool } from 'mysql2/promise'
import { hash, verify } from '@node-rs/argon2'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { changePassword, findSelf, findWithPassword, type Person } from './people.ts'
import { beginSession, endSession, endSessionsOf, personOfSession } from './sessions.ts'
import { cookieIn, forgetSession, keepDevice, keepSession } from './cookies.ts'
import { mustBeGood, noLocalAccounts } from './passwordRule.ts'
import { windowMinutes } from './signInTries.ts'
import { signIn } from './signIn.ts'
import { HttpProblem } from '../http/problem.ts'

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

/** What a session tells its person of themselves. */
export const meOf = async (pool: Pool, person: Person, today: string): Promise<Me> => ({
  name: person.name,
  email: person.email,
  roles: person.roles,
  departments: person.departments,
  today,
  theme: (await findSelf(pool, person.id))?.preferences.theme ?? 'as the device',
})

export const sessionHandlers: HandlersOf<typeof sessionRoutes> = {
  signIn: async ({ request, response, pool, today, secureCookies, localAccounts, body }) => {
    if (!localAccounts) throw noLocalAccounts()
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
    keepSession(response, result.token, secureCookies)
    keepDevice(response, result.device, secureCookies)
    return meOf(pool, result.person, today)
  },
  /** Ends this session, or all of the person's. */
  signOut: async (handling) => {
    const { request, response, pool, person, secureCookies, body } = handling
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
    forgetSession(response, secureCookies)
    return {}
  },
  /** Changes one's own password. Every session ends but this one, which goes on under a new token. */
  changePassword: async (handling) => {
    const { response, pool, person, secureCookies, body } = handling
    const { was, password } = body
    const found = await findWithPassword(pool, person.email)
    if (!found || !(await verify(found.passwordHash, was)))
      throw new HttpProblem(403, 'wrong-password', 'the password you have now is not that one')
    mustBeGood(password, person)
    const passwordHash = await hash(password)
    const token = await inTransaction(pool, async (database) => {
      await changePassword(database, person.id, passwordHash)
      await endSessionsOf(database, person.id)
      await recordAudit(database, {
        who: person.email,
        what: 'password changed',
        subject: person.email,
      })
      return beginSession(database, person.id)
    })
    keepSession(response, token, secureCookies)
    return {}
  },
  whoAmI: ({ pool, person, today }) => meOf(pool, person, today),
}
