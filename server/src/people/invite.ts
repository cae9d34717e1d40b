import type { OpenLink, PersonEntry, Role } from '@wickerframe/contract'
import type { Database } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { HttpProblem } from '../http/problem.ts'
import { addKnown, findEntryByEmail } from './accounts.ts'
import { addressOfLink, findLink, makeLink } from './links.ts'
import { setRoles } from './people.ts'

/** Makes a link with which somebody comes in. @returns it, with its address */
export const openLink = async (
  database: Database,
  entry: { id: number; email: string; name: string; state: PersonEntry['state'] },
  by: string,
  publicUrl: string,
): Promise<OpenLink> => {
  const token = await makeLink(
    database,
    entry.id,
    entry.state === 'active' ? 'reset' : 'invitation',
    by,
  )
  const link = await findLink(database, token)
  if (!link)
    throw new HttpProblem(
      409,
      'deactivated',
      `${entry.name} is deactivated; make them active first`,
    )
  return {
    email: entry.email,
    name: entry.name,
    link: addressOfLink(publicUrl, token),
    until: link.until,
  }
}

/** Asks somebody in who may be known already: what they may do is added to what they could. */
export const invite = async (
  database: Database,
  {
    email,
    name,
    roles,
    departments,
  }: { email: string; name: string; roles: readonly Role[]; departments: readonly string[] },
  by: string,
  publicUrl: string,
): Promise<OpenLink> => {
  const known = await findEntryByEmail(database, email)
  const id = known?.id ?? (await addKnown(database, { email, name }))
  await setRoles(
    database,
    id,
    [...new Set([...(known?.roles ?? []), ...roles])],
    [...new Set([...(known?.departments ?? []), ...departments])],
  )
  await recordAudit(database, {
    who: by,
    what: 'person invited',
    subject: email,
    to: { roles, departments },
  })
  return openLink(database, { id, email, name, state: known?.state ?? 'known' }, by, publicUrl)
}
