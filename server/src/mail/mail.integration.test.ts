import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { startPracticeMailbox, type PracticeMailbox } from '@wickerframe/mailbox/office'
import { startPrivateCollege, type PrivateCollege } from '../testing/privateCollege.testing.ts'
import { mailerFor, type Mailer } from './mailer.ts'
import { takeOn } from './outgoing.ts'
import { sendMail } from './sendMail.ts'

let college: PrivateCollege
let mailbox: PracticeMailbox
let mailer: Mailer
const refusing = { address: '', code: 550 }
const people: Record<'ada' | 'bo', { id: number; email: string }> = {
  ada: { id: 0, email: '' },
  bo: { id: 0, email: '' },
}
const log = { warn: vi.fn() }
const publicUrl = 'https://wickerframe.example'
const mailerTo = (server: string) =>
  mailerFor({ server, from: 'wickerframe@kestrelsound.example', loopback: true })

beforeAll(async () => {
  college = await startPrivateCollege()
  mailbox = await startPracticeMailbox({
    answer: (address) =>
      address === refusing.address ? { code: refusing.code, words: 'no such mailbox' } : null,
  })
  mailer = mailerTo(mailbox.server)
  people.ada = await college.person('designer', 'ada')
  people.bo = await college.person('instructor', 'bo')
})
afterAll(async () => {
  mailer.close()
  await mailbox.stop()
  await college.stop()
})
beforeEach(async () => {
  await college.pool.query('DELETE FROM messages')
  await college.pool.query(
    `UPDATE people
     SET mailed_at = NULL, mail_after = NULL, mail_problem = NULL, preferences = '{}'`,
  )
})
afterEach(() => {
  ;(mailbox.letters as unknown[]).length = 0
  refusing.address = ''
})

/** A message that somebody was told so many seconds ago. */
const tell = ({ email }: { email: string }, subject: string, { ago = 300, read = false } = {}) =>
  college.pool.query(
    `INSERT INTO messages (recipient, sent_at, subject, body, read_at)
     VALUES (?, TIMESTAMPADD(SECOND, -?, NOW(3)), ?, 'As agreed.', ${read ? 'NOW(3)' : 'NULL'})`,
    [email, ago, subject],
  )
const prefer = ({ id }: { id: number }, byMail: string) =>
  college.pool.query(
    `UPDATE people
     SET preferences = JSON_OBJECT('byMail', ?)
     WHERE id = ?`,
    [byMail, id],
  )
const send = (by = mailer) => sendMail(college.pool, by, publicUrl, log)
const came = () => mailbox.letters.map(({ to, subject }) => [to.split('@')[0], subject])
const pass = (hours: number) =>
  college.pool.query(
    `UPDATE people
     SET mailed_at = TIMESTAMPADD(HOUR, -?, mailed_at),
       mail_after = TIMESTAMPADD(HOUR, -?, mail_after)`,
    [hours, hours],
  )

describe('mail', () => {
  it('tells what somebody did not read, all in one, with where it leads, once', async () => {
    await tell(people.ada, 'Ended: Autumn')
    await tell(people.ada, 'Harbour Standard was changed')
    await tell(people.ada, 'Read already', { read: true })
    await send()
    await send()
    const [letter, ...more] = mailbox.letters
    expect(more).toEqual([])
    expect(letter).toMatchObject({
      to: people.ada.email,
      subject: '2 messages from Wickerframe',
      headers: expect.objectContaining({ 'auto-submitted': 'auto-generated' }),
    })
    expect(letter?.text).toMatch(/Ended: Autumn\nAs agreed\.\nhttps:\/\/wickerframe\.example\//)
    expect(letter?.text).toContain('https://wickerframe.example/account')
    expect(letter?.text).not.toContain('Read already')
  })
  it('waits for what comes together', async () => {
    await tell(people.ada, 'Just now', { ago: 0 })
    await send()
    expect(came()).toEqual([])
  })
  it('comes once a day at most, at once, or never, as each wants it', async () => {
    await prefer(people.bo, 'at once')
    for (const who of [people.ada, people.bo]) await tell(who, 'First')
    await send()
    for (const who of [people.ada, people.bo]) await tell(who, 'Second')
    await send()
    expect(came()).toEqual([
      ['ada', 'First'],
      ['bo', 'First'],
      ['bo', 'Second'],
    ])
    await pass(25)
    await prefer(people.bo, 'never')
    await tell(people.bo, 'Third')
    await send()
    expect(came().slice(3)).toEqual([['ada', 'Second']])
  })
  it('goes to nobody who cannot sign in', async () => {
    await college.pool.query(
      `INSERT INTO people (email, name)
       VALUES ('known@kestrelsound.example', 'Known')`,
    )
    await tell({ email: 'known@kestrelsound.example' }, 'Hello')
    await college.pool.query(
      `UPDATE people
       SET deactivated_at = NOW(3)
       WHERE id = ?`,
      [people.bo.id],
    )
    await tell(people.bo, 'Hello')
    await send()
    expect(came()).toEqual([])
    await college.pool.query(
      `UPDATE people
       SET deactivated_at = NULL`,
    )
  })
  it('is sent once by two who send at once', async () => {
    for (const who of [people.ada, people.bo]) await tell(who, 'Hello')
    await Promise.all([send(), send(), send()])
    expect(came().sort()).toEqual([
      ['ada', 'Hello'],
      ['bo', 'Hello'],
    ])
  })
  it('refused for good is given up and shown to administrators; others get theirs', async () => {
    refusing.address = people.ada.email
    for (const who of [people.ada, people.bo]) await tell(who, 'Hello')
    await send()
    await pass(25)
    await send()
    expect(came()).toEqual([['bo', 'Hello']])
    const administrator = await college.as(await college.person('administrator', 'root'))
    const entry = async () =>
      (await administrator.get(`/api/people?search=${people.ada.email}`)).body.people[0]
    expect((await entry()).mailProblem).toContain('no such mailbox')
    refusing.address = ''
    await tell(people.ada, 'Again')
    await send()
    expect([came().at(-1), (await entry()).mailProblem]).toEqual([['ada', 'Again'], null])
  })
  it('that a busy server puts off comes later, with nothing lost, and others wait as well', async () => {
    refusing.address = people.ada.email
    refusing.code = 451
    for (const who of [people.ada, people.bo]) await tell(who, 'Hello')
    await send()
    refusing.address = ''
    await send()
    expect(came()).toEqual([['bo', 'Hello']])
    await pass(1)
    await send()
    expect(came().at(-1)).toEqual(['ada', 'Hello'])
    refusing.code = 550
  })
  it('waits where no server is, and comes when there is one again', async () => {
    const nowhere = mailerTo('smtp://127.0.0.1:1')
    await tell(people.ada, 'Hello')
    await send(nowhere)
    nowhere.close()
    expect(log.warn).toHaveBeenCalledWith(expect.anything(), expect.stringContaining('tried again'))
    await pass(1)
    await send()
    expect(came()).toEqual([['ada', 'Hello']])
  })
  it('on its way when the worker was killed goes out again, under the same id', async () => {
    await tell(people.ada, 'Hello')
    await send()
    const [first] = mailbox.letters
    // As if it was sent, and then nothing could be written any more.
    await college.pool.query(
      `UPDATE messages
       SET mailed_at = NULL`,
    )
    await pass(25)
    await takeOn(college.pool, people.ada.id)
    await send()
    expect(mailbox.letters).toHaveLength(1)
    await pass(1)
    await send()
    expect(mailbox.letters.map(({ id }) => id)).toEqual([first?.id, first?.id])
  })
  it('has no header that somebody wrote into a title or a name', async () => {
    await college.pool.query(
      `UPDATE people
       SET name = 'Ada\r\nBcc: eve@kestrelsound.example'
       WHERE id = ?`,
      [people.ada.id],
    )
    await tell(people.ada, 'Hello\r\nBcc: eve@kestrelsound.example')
    await send()
    expect(mailbox.letters).toHaveLength(1)
    expect(mailbox.letters[0]?.to).toBe(people.ada.email)
    expect(Object.keys(mailbox.letters[0]?.headers ?? {})).not.toContain('bcc')
  })
})
