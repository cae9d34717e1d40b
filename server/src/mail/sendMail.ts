import type { Pool } from 'mysql2/promise'
import type { Logger } from 'pino'
import { placeOfMessage } from '@wickerframe/contract'
import { inTransaction } from '@wickerframe/storage'
import type { Mail, Mailer } from './mailer.ts'
import {
  outgoingTo,
  putOff,
  recipientsDue,
  settle,
  takeOn,
  type OutgoingMessage,
  type Recipient,
} from './outgoing.ts'

const peopleAtOnce = 100
const messagesInOne = 50
const triedAgainMinutes = 15

/**
 * Sends people what they did not read yet, one mail for each. One that was sent when this program was killed goes out again,
 * under the same id. Where the server is away, the others wait as well.
 */
export const sendMail = async (
  pool: Pool,
  mailer: Mailer,
  publicUrl: string,
  log: Pick<Logger, 'warn'>,
): Promise<void> => {
  for (const person of await recipientsDue(pool, peopleAtOnce)) {
    if (!(await takeOn(pool, person.id))) continue
    const messages = await outgoingTo(pool, person.email, messagesInOne)
    const last = messages.at(-1)
    if (!last) {
      await putOff(pool, person.id, 0)
      continue
    }
    const sending = await mailer.send(mailOf(person, messages, publicUrl))
    if (sending.state === 'later') {
      log.warn({ why: sending.why }, 'mail could not be sent; it is tried again')
      await putOff(pool, person.id, triedAgainMinutes)
      return
    }
    const problem = sending.state === 'refused' ? sending.why : null
    if (problem !== null) log.warn({ person: person.id, why: problem }, 'mail was refused')
    await inTransaction(pool, (database) => settle(database, person, last.id, problem))
  }
}

/** One mail with everything. */
export const mailOf = (
  { id, name, email }: Recipient,
  messages: readonly OutgoingMessage[],
  publicUrl: string,
): Mail => ({
  to: { name, address: email },
  subject:
    messages.length === 1
      ? (messages[0]?.subject ?? '')
      : `${messages.length} messages from Wickerframe`,
  text: [
    ...messages.map((message) =>
      [message.subject, message.body, new URL(placeOfMessage(message), publicUrl).href].join('\n'),
    ),
    `What you are told, and how often, you decide on your account: ${new URL('/account', publicUrl).href}`,
  ].join('\n\n'),
  id: `${id}.${messages.at(-1)?.id ?? 0}`,
})
