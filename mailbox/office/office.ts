import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import PostalMime from 'postal-mime'
import { SMTPServer } from 'smtp-server'

/** A mail that came in. */
export interface Letter {
  to: string
  subject: string
  text: string
  id: string
  headers: Readonly<Record<string, string>>
}

export interface PracticeMailbox {
  /** Where mail is handed over. */
  server: string
  /** Where one reads what came. */
  page: string
  /** What came, oldest first; the last few hundred. */
  letters: readonly Letter[]
  stop: () => Promise<void>
}

/** What the office answers to a recipient: null takes the mail, otherwise the reply (RFC 5321) and its words. */
type Answer = { code: number; words: string } | null

const mostKept = 300
const mostBytes = 1_000_000

/** A practice mail server on loopback, which delivers nothing: it shows on a page what it was given. 0: any port that is free. */
export const startPracticeMailbox = async ({
  smtpPort = 0,
  pagePort = 0,
  answer = () => null,
}: {
  smtpPort?: number
  pagePort?: number
  answer?: (recipient: string) => Answer
} = {}): Promise<PracticeMailbox> => {
  const letters: Letter[] = []
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    size: mostBytes,
    onRcptTo: ({ address }, _, done) => {
      const refused = answer(address)
      done(refused && Object.assign(new Error(refused.words), { responseCode: refused.code }))
    },
    onData: (stream, session, done) => {
      const parts: Buffer[] = []
      stream.on('data', (part: Buffer) => parts.push(part))
      stream.on('end', () => {
        void PostalMime.parse(Buffer.concat(parts)).then((mail) => {
          letters.push({
            to: session.envelope.rcptTo.map(({ address }) => address).join(', '),
            subject: mail.subject ?? '',
            text: mail.text ?? '',
            id: mail.messageId ?? '',
            headers: Object.fromEntries(mail.headers.map(({ key, value }) => [key, value])),
          })
          letters.splice(0, letters.length - mostKept)
          done()
        }, done)
      })
    },
  })
  const page = createServer((_, response) => {
    response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' })
    response.end(pageOf(letters))
  })
  const portOf = (server: { address: () => string | AddressInfo | null }): number => {
    const address = server.address()
    return typeof address === 'object' && address ? address.port : 0
  }
  await new Promise<void>((resolve, reject) => {
    smtp.on('error', reject)
    smtp.listen(smtpPort, '127.0.0.1', () => resolve())
  })
  await new Promise<void>((resolve, reject) => {
    page.on('error', reject)
    page.listen(pagePort, '127.0.0.1', () => resolve())
  })
  return {
    server: `smtp://127.0.0.1:${portOf(smtp.server)}`,
    page: `http://127.0.0.1:${portOf(page)}`,
    letters,
    stop: async () => {
      page.closeAllConnections()
      await Promise.all([
        new Promise<void>((resolve) => smtp.close(() => resolve())),
        new Promise<void>((resolve) => page.close(() => resolve())),
      ])
    },
  }
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;')

const pageOf = (letters: readonly Letter[]): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>The practice mailbox</title>
<style>body{font:15px/1.5 system-ui;max-width:60rem;margin:2rem auto;padding:0 1rem}pre{white-space:pre-wrap;font:inherit}article{border-top:1px solid #999;padding:.5rem 0}</style></head>
<body><h1>The practice mailbox</h1>
<p>Mail that Wickerframe sent. Nothing of it was delivered to anybody.</p>
${letters.length === 0 ? '<p>Nothing came yet.</p>' : ''}
${letters
  .toReversed()
  .map(
    ({ to, subject, text }) =>
      `<article><h2>${escaped(subject)}</h2><p>to ${escaped(to)}</p><pre>${escaped(text)}</pre></article>`,
  )
  .join('\n')}
</body></html>`
