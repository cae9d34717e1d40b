import { parseArgs } from 'node:util'
import type { Pool } from 'mysql2/promise'
import { z } from 'zod'
import { Email, PersonName, roles, rolesInWords } from '@wickerframe/contract'
import { inTransaction } from '@wickerframe/storage'
import { HttpProblem } from '../http/problem.ts'
import { WrongSettings } from '../start/settings.ts'
import { findEntryByEmail } from './accounts.ts'
import { invite } from './invite.ts'

export const usage = `npm run people -- invite ADDRESS [--name NAME] [--role ROLE ...] [--department NAME ...]
  Prints a link that works once. Somebody new becomes an administrator unless a role is named (${roles.join(', ')});
  who is known keeps what they may do already, and sets another password by the link.`

const Wanted = z.object({
  email: Email,
  name: PersonName.optional(),
  role: z.array(z.enum(roles)).default([]),
  department: z.array(z.string().trim().min(1).max(40)).default([]),
})

/** What is asked for in arguments. @throws WrongSettings with the usage */
const readArguments = (given: readonly string[]): z.output<typeof Wanted> => {
  const wrong = (why: string) => new WrongSettings(`${why}\n\n${usage}`)
  let parsed
  try {
    parsed = parseArgs({
      args: [...given],
      allowPositionals: true,
      options: {
        name: { type: 'string' },
        role: { type: 'string', multiple: true },
        department: { type: 'string', multiple: true },
      },
    })
  } catch (cause) {
    throw wrong(cause instanceof Error ? cause.message : String(cause))
  }
  const [what, email, ...more] = parsed.positionals
  if (what !== 'invite' || email === undefined || more.length > 0)
    throw wrong('What is to be done is not clear.')
  const read = Wanted.safeParse({ email, ...parsed.values })
  if (read.success) return read.data
  throw wrong(
    read.error.issues.map(({ path, message }) => `${path.join('.')}: ${message}`).join('\n'),
  )
}

/** Carries out `npm run people`. @returns what is printed */
export const peopleCommand = async (
  pool: Pool,
  given: readonly string[],
  publicUrl: string,
): Promise<string> => {
  const { email, name, role, department } = readArguments(given)
  try {
    const { entry, link, until } = await inTransaction(pool, async (database) => {
      const known = await findEntryByEmail(database, email)
      const asked =
        role.length === 0 && (known?.roles.length ?? 0) === 0 ? (['administrator'] as const) : role
      const made = await invite(
        database,
        { email, name: name ?? known?.name ?? email, roles: asked, departments: department },
        'the command line',
        publicUrl,
      )
      return { entry: await findEntryByEmail(database, email), ...made }
    })
    return `${entry?.name ?? email} (${rolesInWords(entry?.roles ?? [])}) comes in by this link, once, until ${until}:\n\n  ${link}`
  } catch (cause) {
    if (cause instanceof HttpProblem) throw new WrongSettings(cause.message)
    throw cause
  }
}
