import { createTransport } from 'nodemailer'

export interface Mail {
  to: { name: string; address: string }
  subject: string
  /** Plain text. */
  text: string
  /** The same for the same mail, so that one that comes twice is known by it. */
  id: string
}

/** What became of a mail: sent, refused for good, or to be tried again (nobody there, busy, out of time). */
export type Sending = { state: 'sent' } | { state: 'refused' | 'later'; why: string }

export interface Mailer {
  send: (mail: Mail) => Promise<Sending>
  close: () => void
}

const seconds = (count: number) => count * 1000

/** An SMTP server (RFC 5321) by its address, `smtp://` or `smtps://`. Away from this machine it is spoken to over TLS only. */
export const mailerFor = ({
  server,
  from,
  loopback,
}: {
  server: string
  from: string
  loopback: boolean
}): Mailer => {
  const transport = createTransport({
    url: server,
    requireTLS: !loopback,
    connectionTimeout: seconds(10),
    greetingTimeout: seconds(10),
    socketTimeout: seconds(20),
    // What is sent is text that is written here: no file and no address is ever read for it.
    disableFileAccess: true,
    disableUrlAccess: true,
  })
  const host = from.slice(from.lastIndexOf('@') + 1)
  return {
    send: async ({ to, subject, text, id }) => {
      try {
        await transport.sendMail({
          from: { name: 'Wickerframe', address: from },
          to,
          subject,
          text,
          messageId: `<${id}@${host}>`,
          // So that nobody's absence note answers it (RFC 3834).
          headers: { 'Auto-Submitted': 'auto-generated' },
        })
        return { state: 'sent' }
      } catch (cause) {
        const why = (cause instanceof Error ? cause.message : String(cause)).slice(0, 300)
        return { state: isForGood(cause) ? 'refused' : 'later', why }
      }
    },
    close: () => transport.close(),
  }
}

/** A permanent negative reply to this mail (RFC 5321, 4.2.1: 5yz), and not to our signing in at the server. */
const isForGood = (cause: unknown): boolean =>
  cause instanceof Error &&
  'responseCode' in cause &&
  typeof cause.responseCode === 'number' &&
  cause.responseCode >= 500 &&
  !('code' in cause && cause.code === 'EAUTH')
