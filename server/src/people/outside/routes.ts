import type { Request } from 'express'
import type { outsideRoutes, OutsideProblem } from '@wickerframe/contract'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../../audit/audit.ts'
import { hasAnswered, type HandlersOf, type Situation } from '../../http/handler.ts'
import { notFound } from '../../http/problem.ts'
import { cookieIn, forgetOutside, keepOutside, keepSession } from '../cookies.ts'
import { beginSession } from '../sessions.ts'
import { clientName } from '../signIn.ts'
import { giveTryBack, reserveTry, type TryCounter } from '../signInTries.ts'
import { personVouchedFor } from './outsidePerson.ts'
import { OutsideFailed, type Begun, type OutsideProvider } from './provider.ts'

const providerOf = ({ outside }: Situation): OutsideProvider => {
  if (!outside) throw notFound('other way to sign in')
  return outside
}

const wayBack = (publicUrl: string): string =>
  `${publicUrl.replace(/\/$/, '')}/api/sign-in/outside/back`

/** The sign-in that was begun in this browser; null where none was, or long ago. */
const begunIn = (request: Request, secure: boolean): Begun | null => {
  const kept = cookieIn(request, 'outside', secure)
  const [state, nonce, verifier] = kept?.split('.') ?? []
  return state && nonce && verifier ? { state, nonce, verifier } : null
}

/** Sends the browser on to our own first page. */
const goOn = ({ response }: Situation, problem: OutsideProblem | null): typeof hasAnswered => {
  response.redirect(303, problem === null ? '/' : `/?outside=${problem}`)
  return hasAnswered
}

export const outsideHandlers: HandlersOf<typeof outsideRoutes> = {
  signInWays: async ({ outside, localAccounts }) => ({
    local: localAccounts,
    outside: outside?.settings.name ?? null,
  }),
  beginOutside: async (handling) => {
    const { response, publicUrl, secureCookies } = handling
    const provider = providerOf(handling)
    try {
      const { address, begun } = await provider.begin(wayBack(publicUrl))
      keepOutside(response, [begun.state, begun.nonce, begun.verifier].join('.'), secureCookies)
      response.redirect(303, address)
      return hasAnswered
    } catch (cause) {
      if (cause instanceof OutsideFailed) return goOn(handling, cause.fault)
      throw cause
    }
  },
  /** Whom the provider sends back is signed in, where a sign-in was begun in this very browser. */
  endOutside: async (handling) => {
    const { request, response, pool, publicUrl, secureCookies } = handling
    const provider = providerOf(handling)
    const begun = begunIn(request, secureCookies)
    forgetOutside(response, secureCookies)
    if (!begun) return goOn(handling, 'over')
    // What comes back unasked costs the provider a question and the audit a line; who is let in gives the try back.
    const tries: TryCounter[] = [
      { scope: 'client', name: `outside ${clientName(request.ip ?? '')}`.slice(0, 200) },
      { scope: 'all', name: 'outside' },
    ]
    if (!(await inTransaction(pool, (database) => reserveTry(database, tries))))
      return goOn(handling, 'throttled')
    const address = new URL(wayBack(publicUrl))
    address.search = new URL(request.originalUrl, publicUrl).search
    try {
      const vouched = await provider.end(address, begun)
      const ended = await inTransaction(pool, async (database) => {
        const person = await personVouchedFor(database, vouched, provider.settings)
        const isLetIn = typeof person !== 'string'
        await recordAudit(database, {
          who: isLetIn ? person.email : (vouched.email ?? vouched.subject).slice(0, 200),
          what: isLetIn ? 'signed in' : 'sign-in failed',
          subject: `from ${clientName(request.ip ?? '')}, by the institution’s sign-in`,
        })
        if (isLetIn) await giveTryBack(database, tries)
        return isLetIn
          ? { state: 'in' as const, token: await beginSession(database, person.id) }
          : { state: 'not' as const, problem: person }
      })
      if (ended.state === 'not') return goOn(handling, ended.problem)
      keepSession(response, ended.token, secureCookies)
      return goOn(handling, null)
    } catch (cause) {
      if (!(cause instanceof OutsideFailed)) throw cause
      await recordAudit(pool, {
        who: 'the institution’s sign-in',
        what: 'sign-in failed',
        subject: `from ${clientName(request.ip ?? '')}: ${cause.fault}`,
      })
      return goOn(handling, cause.fault)
    }
  },
}
