import type { OpenLink, PersonEntry, peopleRoutes } from '@wickerframe/contract'
import { inTransaction, type Database } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import type { HandlersOf } from '../http/handler.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import {
  changePerson,
  findEntry,
  findEntryByEmail,
  listPeople,
  listUninvited,
  setDeactivated,
} from './accounts.ts'
import { answerRequest, listRequests, lockRequest } from './accountRequests.ts'
import { keepingAdministrators } from './administrators.ts'
import { keptAbout } from './kept.ts'
import { takeOut } from './leaving.ts'
import { invite, openLink } from './invite.ts'
import { addressOfLink, findLink, makeInvitations } from './links.ts'
import { endSessionsOf } from './sessions.ts'

/** @throws HttpProblem 404 */
const entryOf = async (database: Database, id: number): Promise<PersonEntry> => {
  const entry = await findEntry(database, id)
  if (!entry) throw notFound('person')
  return entry
}

const changedMeanwhile = (entry: PersonEntry, wanted: unknown) =>
  new HttpProblem(
    409,
    'clash',
    `${entry.name} was changed by another administrator meanwhile; look again and decide anew`,
    { clash: { code: 'clash', where: `/people/${entry.id}`, present: entry, wanted } },
  )

const invitedTogether = 500

export const peopleHandlers: HandlersOf<typeof peopleRoutes> = {
  listPeople: ({ pool, query }) => listPeople(pool, query),
  invitePerson: ({ pool, person, publicUrl, body }) =>
    inTransaction(pool, async (database) => {
      const known = await findEntryByEmail(database, body.email)
      if (known?.state === 'active' || known?.state === 'deactivated')
        throw new HttpProblem(
          409,
          'known',
          `${body.email} is ${known.name}, who ${known.state === 'active' ? 'has an account' : 'is deactivated'}; change that one`,
        )
      return invite(database, body, person.email, publicUrl)
    }),
  inviteKnown: ({ pool, person, publicUrl, body }) =>
    inTransaction(pool, async (database) => {
      const uninvited = await listUninvited(database, body.again)
      const links: OpenLink[] = []
      for (let at = 0; at < uninvited.length; at += invitedTogether) {
        const part = uninvited.slice(at, at + invitedTogether)
        const tokens = await makeInvitations(
          database,
          part.map(({ id }) => id),
          person.email,
        )
        const until = (await findLink(database, tokens[0] ?? ''))?.until ?? ''
        links.push(
          ...part.map(({ email, name }, i) => ({
            email,
            name,
            link: addressOfLink(publicUrl, tokens[i] ?? ''),
            until,
          })),
        )
      }
      await recordAudit(database, {
        who: person.email,
        what: 'instructors invited',
        subject: `${links.length} people`,
      })
      return { links }
    }),
  changePerson: ({ pool, person, at, body }) =>
    inTransaction(pool, (database) =>
      keepingAdministrators(database, async () => {
        const before = await entryOf(database, at.person)
        if (!(await changePerson(database, at.person, body))) throw changedMeanwhile(before, body)
        const { name, roles, departments } = before
        await recordAudit(database, {
          who: person.email,
          what: 'person changed',
          subject: before.email,
          from: { name, roles, departments },
          to: { name: body.name, roles: body.roles, departments: body.departments },
        })
        return entryOf(database, at.person)
      }),
    ),
  deactivatePerson: ({ pool, person, at, body }) =>
    inTransaction(pool, (database) =>
      keepingAdministrators(database, async () => {
        const before = await entryOf(database, at.person)
        if (!(await setDeactivated(database, at.person, body.was, body.deactivated)))
          throw changedMeanwhile(before, body)
        if (body.deactivated) await endSessionsOf(database, at.person)
        await recordAudit(database, {
          who: person.email,
          what: body.deactivated ? 'person deactivated' : 'person made active again',
          subject: before.email,
        })
        return entryOf(database, at.person)
      }),
    ),
  takePersonOut: ({ pool, person, at, body }) =>
    inTransaction(pool, (database) =>
      keepingAdministrators(database, async () => {
        const before = await entryOf(database, at.person)
        if (before.state === 'left') throw notFound('person who is still here')
        if (before.revision !== body.was) throw changedMeanwhile(before, body)
        const as = await takeOut(database, before)
        await recordAudit(database, {
          who: person.id === before.id ? as : person.email,
          what: 'person taken out',
          subject: as,
        })
        return entryOf(database, at.person)
      }),
    ),
  keptAboutPerson: async ({ pool, person, response, at }) => {
    const entry = await entryOf(pool, at.person)
    await recordAudit(pool, {
      who: person.email,
      what: 'read what is kept about a person',
      subject: entry.email,
    })
    response.attachment(`person-${entry.id}.json`)
    return keptAbout(pool, entry)
  },
  signPersonOut: ({ pool, person, at }) =>
    inTransaction(pool, async (database) => {
      const entry = await entryOf(database, at.person)
      await endSessionsOf(database, at.person)
      await recordAudit(database, {
        who: person.email,
        what: 'signed out everywhere',
        subject: entry.email,
      })
      return {}
    }),
  linkForPerson: ({ pool, person, publicUrl, at }) =>
    inTransaction(pool, async (database) => {
      const entry = await entryOf(database, at.person)
      await recordAudit(database, {
        who: person.email,
        what: entry.state === 'active' ? 'reset link made' : 'person invited',
        subject: entry.email,
      })
      return openLink(database, entry, person.email, publicUrl)
    }),
  listAccountRequests: ({ pool }) => listRequests(pool),
  answerAccountRequest: ({ pool, person, publicUrl, at, body }) =>
    inTransaction(pool, async (database) => {
      const request = await lockRequest(database, at.request)
      if (!request) throw notFound('request; another administrator may have answered it')
      const isLetIn = body.answer === 'let in'
      await answerRequest(
        database,
        request.id,
        isLetIn ? 'let-in' : 'refused',
        person.email,
        body.answer === 'refuse' ? body.why : '',
      )
      if (isLetIn)
        return { link: await invite(database, { ...request, ...body }, person.email, publicUrl) }
      await recordAudit(database, {
        who: person.email,
        what: 'account refused',
        subject: request.email,
        to: body.why,
      })
      return { link: null }
    }),
}
