import { hash } from '@node-rs/argon2'
import type { Account, accountRoutes } from '@wickerframe/contract'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import type { HandlersOf, Situation } from '../http/handler.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { findEntry } from './accounts.ts'
import { keptAbout } from './kept.ts'
import { keepRequest } from './accountRequests.ts'
import { cookieIn, keepSession } from './cookies.ts'
import { endLinkOf, findLink } from './links.ts'
import { changePassword, changeSelf, findPerson, findSelf } from './people.ts'
import { mustBeGood, noLocalAccounts } from './passwordRule.ts'
import { meOf } from './routes.ts'
import { beginSession, endSessionById, endSessionsOf, listSessions } from './sessions.ts'
import { clientName } from './signIn.ts'
import { reserveTry } from './signInTries.ts'

const linkIsOver = () =>
  new HttpProblem(
    410,
    'link-over',
    'this link was used already, has run out, or is not whole; ask an administrator for another one',
  )

const accountOf = async ({
  pool,
  person,
  request,
  secureCookies,
  sendsMail,
}: Situation): Promise<Account> => {
  const self = await findSelf(pool, person.id)
  if (!self) throw notFound('account')
  const session = cookieIn(request, 'session', secureCookies)
  return { ...self, sendsMail, sessions: await listSessions(pool, person.id, session) }
}

export const accountHandlers: HandlersOf<typeof accountRoutes> = {
  readLink: async ({ pool, body }) => {
    const link = await findLink(pool, body.token)
    if (!link) throw linkIsOver()
    const { email, name, purpose, until } = link
    return { email, name, purpose, until }
  },
  /** Sets a password by a link. Of two at once with one link, the second finds it used. */
  useLink: async ({ pool, response, secureCookies, localAccounts, today, body }) => {
    if (!localAccounts) throw noLocalAccounts()
    const { token, password } = body
    const link = await findLink(pool, token)
    if (!link) throw linkIsOver()
    mustBeGood(password, link)
    const passwordHash = await hash(password)
    const begun = await inTransaction(pool, async (database) => {
      const held = await findLink(database, token, 'FOR UPDATE')
      if (!held) throw linkIsOver()
      await endLinkOf(database, held.personId)
      await changePassword(database, held.personId, passwordHash)
      await endSessionsOf(database, held.personId)
      await recordAudit(database, {
        who: held.email,
        what: held.purpose === 'invitation' ? 'invitation taken' : 'password set by a link',
        subject: held.email,
      })
      const person = await findPerson(database, held.personId)
      return person && { person, session: await beginSession(database, held.personId) }
    })
    if (!begun) throw linkIsOver()
    keepSession(response, begun.session, secureCookies)
    return meOf(pool, begun.person, today)
  },
  askForAccount: async ({ request, pool, body }) => {
    const client = `asks ${clientName(request.ip ?? '')}`.slice(0, 200)
    const mayAsk = await inTransaction(pool, (database) =>
      reserveTry(database, [{ scope: 'client', name: client }]),
    )
    if (!mayAsk)
      throw new HttpProblem(429, 'too-many-attempts', 'too many requests; try again later', {}, 600)
    await inTransaction(pool, (database) => keepRequest(database, body))
    return {}
  },
  readAccount: accountOf,
  keptAboutMe: async ({ pool, person, response }) => {
    const entry = await findEntry(pool, person.id)
    if (!entry) throw notFound('account')
    response.attachment('what-is-kept-about-me.json')
    return keptAbout(pool, entry)
  },
  changeAccount: async (handling) => {
    const { pool, person, body } = handling
    await inTransaction(pool, async (database) => {
      await changeSelf(database, person.id, body)
      if (body.name !== person.name)
        await recordAudit(database, {
          who: person.email,
          what: 'own name changed',
          subject: person.email,
          from: person.name,
          to: body.name,
        })
    })
    return accountOf(handling)
  },
  endSession: async ({ pool, person, at }) => {
    if (!(await endSessionById(pool, person.id, at.session))) throw notFound('session')
    return {}
  },
}
