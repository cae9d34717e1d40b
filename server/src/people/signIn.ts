import { randomBytes } from 'node:crypto'
import { hash, verify } from '@node-rs/argon2'
import type { Pool } from 'mysql2/promise'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { findWithPassword, type Person } from './people.ts'
import { beginSession, deviceName, isKnownDevice, rememberDevice } from './sessions.ts'
import { giveTryBack, reserveTry, type TryCounter } from './signInTries.ts'

/** A hash to compare with when nobody has that address, so that the answer takes as long. Argon2id of a random value. */
const nobody = hash(randomBytes(16).toString('hex'))

export interface SignInTry {
  email: string
  password: string
  /** Network address of who asks. */
  client: string
  /** Token of the device, where it has one. */
  device: string | null
}
export type SignInOutcome =
  | { state: 'signed-in'; token: string; device: string; person: Person }
  | { state: 'wrong' | 'throttled' }

/** IPv6 hands whole networks of 64 bits to one household; they are one client. */
export const clientName = (address: string): string => {
  const plain = address.replace(/^::ffff:/, '')
  if (!plain.includes(':')) return plain.slice(0, 100)
  const [head = '', tail = ''] = plain.split('::')
  const first = head.split(':').filter((group) => group !== '')
  const last = tail.split(':').filter((group) => group !== '')
  const zeros = plain.includes('::') ? Math.max(0, 8 - first.length - last.length) : 0
  return [...first, ...Array.from({ length: zeros }, () => '0'), ...last]
    .slice(0, 4)
    .map((group) => group.toLowerCase().replace(/^0+(?=.)/, ''))
    .join(':')
    .slice(0, 100)
}

/**
 * Signs somebody in. A try is reserved before the password is looked at: by account, by client and in all; on a device on
 * which the owner of the account signed in before, by device alone, so that nobody else can lock them out.
 */
export const signIn = async (
  pool: Pool,
  { email, password, client, device }: SignInTry,
): Promise<SignInOutcome> => {
  const account = email.trim().toLowerCase()
  const found = await findWithPassword(pool, account)
  const known =
    found !== null && device !== null && (await isKnownDevice(pool, device, found.person.id))
  const counters: TryCounter[] = known
    ? [{ scope: 'device', name: deviceName(device) }]
    : [
        { scope: 'account', name: account },
        { scope: 'all', name: '' },
        { scope: 'client', name: clientName(client) },
      ]
  const mayTry = await inTransaction(pool, (database) => reserveTry(database, counters))
  if (!mayTry) return { state: 'throttled' }
  const right = await verify(found?.passwordHash ?? (await nobody), password)
  if (!found || !right) {
    await recordAudit(pool, {
      who: account.slice(0, 200),
      what: 'sign-in failed',
      subject: `from ${clientName(client)}`,
    })
    return { state: 'wrong' }
  }
  const { person } = found
  return inTransaction(pool, async (database): Promise<SignInOutcome> => {
    await giveTryBack(database, counters)
    const remembered = await rememberDevice(
      database,
      person.id,
      known && device !== null ? device : undefined,
    )
    const token = await beginSession(database, person.id)
    await recordAudit(database, {
      who: person.email,
      what: 'signed in',
      subject: `from ${clientName(client)}`,
    })
    return { state: 'signed-in', token, device: remembered, person }
  })
}
