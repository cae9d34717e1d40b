import { SignIn, type Me } from '@wickerframe/contract'
import { personOfSession, signIn, signOut, type Person } from '../../repositories/people.ts'
import { listTerms } from '../../repositories/terms.ts'
import { firstRow } from '@wickerframe/storage'
import type { Pool } from 'mysql2/promise'
import type { Request } from 'express'
import { bodyOf, type Handler } from '../handler.ts'
import { HttpProblem } from '../problem.ts'

const cookieName = 'wickerframe-session'

const tokenOf = (request: Request): string | null =>
  (request.get('cookie') ?? '')
    .split(';')
    .map((part) => part.trim().split('='))
    .find(([name]) => name === cookieName)?.[1] ?? null

/** Who is signed in with the request's cookie. */
export const personOf = async (pool: Pool, request: Request): Promise<Person | null> => {
  const token = tokenOf(request)
  return token === null ? null : personOfSession(pool, token)
}

const meOf = (person: Person, today: string): Me => ({
  name: person.name,
  email: person.email,
  role: person.role,
  today,
})

export const postSignIn: Handler = async ({ request, response, pool, today, secureCookies }) => {
  const { email, password } = bodyOf(SignIn, request)
  const result = await signIn(pool, email, password)
  if (result === 'throttled')
    throw new HttpProblem(
      429,
      'too-many-attempts',
      'too many attempts for this address; try again in ten minutes',
    )
  if (result === 'wrong')
    throw new HttpProblem(401, 'wrong-sign-in', 'the address or the password is not right')
  response.cookie(cookieName, result.token, {
    httpOnly: true,
    sameSite: 'strict',
    secure: secureCookies,
    path: '/',
  })
  return meOf(result.person, today)
}

export const postSignOut: Handler = async ({ request, response, pool }) => {
  const token = tokenOf(request)
  if (token !== null) await signOut(pool, token)
  response.clearCookie(cookieName, { path: '/' })
  return {}
}

export const getMe: Handler = async ({ person, today }) => meOf(person, today)
export const getTerms: Handler = async ({ pool }) => listTerms(pool)
export const getHealth: Handler = async ({ pool }) => ({
  database: (await firstRow(pool, 'SELECT 1 AS one')) !== null,
})
