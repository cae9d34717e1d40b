import { createHash } from 'node:crypto'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import * as fc from 'fast-check'
import { afterEach, describe, expect, it } from 'vitest'
import type { Course } from '@wickerframe/core'
import { propertyRuns } from '@wickerframe/core/testing'
import { connectorClient, type Connector } from './client.ts'

type Lie = (request: IncomingMessage, response: ServerResponse) => void
const servers: Server[] = []
/** A platform that answers everything so, on loopback, and a client that asks it. */
const platformThat = async (lie: Lie, timeoutSeconds = 20): Promise<Connector> => {
  const server = createServer((request, response) => {
    request.resume()
    request.on('end', () => lie(request, response))
  })
  servers.push(server)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return connectorClient({
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    token: 'a token of sixteen letters',
    timeoutSeconds,
  })
}
const saying =
  (answer: unknown, status = 200, headers: Record<string, string> = {}): Lie =>
  (_, response) =>
    response
      .writeHead(status, { 'content-type': 'application/json', ...headers })
      .end(typeof answer === 'string' ? answer : JSON.stringify(answer))
afterEach(() => {
  for (const server of servers.splice(0)) {
    server.closeAllConnections()
    server.close()
  }
})

const course = (id: string, more: Partial<Course> = {}) => ({
  schema: 'wickerframe.course/2',
  id,
  name: 'Navigation',
  revision: '7',
  readAt: '2026-09-10T08:00:00Z',
  modules: [],
  ...more,
})
const module = (id: string) => ({
  id,
  name: id,
  kind: 'module',
  published: true,
  children: [] as object[],
})
const set = {
  expectedRevision: '6',
  changes: [
    {
      change: 'create-module' as const,
      clientId: 'new-1',
      parent: null,
      at: 0,
      fields: { name: 'Week 1' },
    },
  ],
}

describe('an answer about something else than was asked', () => {
  const other = course('c2')
  it.each<[string, (connector: Connector) => Promise<unknown>]>([
    ['a snapshot', (connector) => connector.snapshot('c1')],
    ['a course that was made', (connector) => connector.create('c1', 'Navigation')],
    ['a rehearsal', (connector) => connector.rehearse('c1', 'c9')],
    ['a status', (connector) => connector.setStatus('c1', 'teaching')],
  ])('is not believed: %s', async (_, ask) => {
    expect(await ask(await platformThat(saying(other)))).toMatchObject({
      state: 'refused',
      code: 'unusable-answer',
      detail: expect.stringContaining('course c2 was sent where c1 was asked for'),
    })
    expect(await ask(await platformThat(saying(course('c1'))))).toMatchObject({ state: 'answered' })
  })
  it('is not believed of a status that was not set, people who were not enrolled, a list that goes back or says one twice', async () => {
    const merged = await platformThat(saying(course('c1', { status: 'merged' })))
    expect((await merged.setStatus('c1', 'teaching')).state).toBe('refused')
    const ada = { email: 'Ada@kestrelsound.example', name: 'Ada' }
    const none = await platformThat(saying({ people: [] }))
    expect((await none.enrol('c1', [ada])).state).toBe('refused')
    const lower = await platformThat(
      saying({ people: [{ ...ada, email: 'ada@kestrelsound.example' }] }),
    )
    expect((await lower.enrol('c1', [ada])).state).toBe('answered')
    const one = { id: 'c1', name: 'N', status: 'teaching', revision: '1', cursor: 3 }
    const twice = await platformThat(saying({ courses: [one, one], cursor: 3 }))
    expect((await twice.list(0)).state).toBe('refused')
    const back = await platformThat(saying({ courses: [], cursor: 3 }))
    expect([(await back.list(4)).state, (await back.list(3)).state]).toEqual([
      'refused',
      'answered',
    ])
  })
  it('is not believed of a course in which one id names two things', async () => {
    const modules = [module('m1'), { ...module('m2'), children: [module('m1')] }]
    const connector = await platformThat(saying({ ...course('c1'), modules }))
    expect(await connector.snapshot('c1')).toMatchObject({
      state: 'refused',
      detail: expect.stringContaining('under the id m1'),
    })
  })
  it('leaves open what became of a change set: it is asked for again under its key', async () => {
    const answers = {
      'another course': { revision: '7', ids: { 'new-1': 'm1' }, course: course('c2') },
      'another revision': { revision: '8', ids: { 'new-1': 'm1' }, course: course('c1') },
      'no id': { revision: '7', ids: {}, course: course('c1') },
      'not the contract': { revision: '7' },
    }
    for (const [what, answer] of Object.entries(answers)) {
      const connector = await platformThat(saying(answer))
      expect([what, (await connector.apply('c1', 'key', set)).state]).toEqual([what, 'unknown'])
    }
    const right = await platformThat(
      saying({
        revision: '7',
        ids: { 'new-1': 'm1' },
        course: { ...course('c1'), modules: [module('m1')] },
      }),
    )
    expect((await right.apply('c1', 'key', set)).state).toBe('answered')
  })
})

describe('an answer that does not end', () => {
  const head = { 'content-type': 'application/json' }
  it('is cut off at a number of bytes, however fast it comes', async () => {
    let sent = 0
    const connector = await platformThat((_, response) => {
      response.writeHead(200, head)
      const piece = Buffer.alloc(2 ** 20, ' ')
      const more = () => {
        while (!response.destroyed && response.write(piece)) sent += piece.length
        sent += piece.length
        if (!response.destroyed) response.once('drain', more)
      }
      more()
    })
    const answer = await connector.snapshot('c1')
    expect(answer).toMatchObject({ state: 'unknown', detail: expect.stringContaining('32 MB') })
    expect(sent).toBeLessThan(64 * 2 ** 20)
  })
  it('is cut off at the deadline when it trickles, stalls in its body, or never begins', async () => {
    const trickle: Lie = (_, response) => {
      response.writeHead(200, head)
      const timer = setInterval(() => response.write(' '), 20)
      response.on('close', () => clearInterval(timer))
    }
    const stall: Lie = (_, response) => void response.writeHead(200, head).write('{"schema":')
    for (const lie of [trickle, stall, () => {}] satisfies Lie[]) {
      const connector = await platformThat(lie, 1)
      const began = performance.now()
      expect(await connector.snapshot('c1')).toEqual({
        state: 'unknown',
        detail: 'no whole answer in 1 seconds',
      })
      expect(performance.now() - began).toBeLessThan(3000)
    }
  })
  it('is not begun where its length is told to be too much', async () => {
    const connector = await platformThat((_, response) =>
      response.writeHead(200, { ...head, 'content-length': String(2 ** 40) }).write('{'),
    )
    expect(await connector.snapshot('c1')).toMatchObject({ state: 'unknown' })
  })
  it('is not gone into where it is deep, wide, no JSON or nothing', async () => {
    const started = performance.now()
    const answers = ['['.repeat(3_000_000), `[${'1,'.repeat(3_000_000)}1]`, '<html>', '']
    const states: string[] = []
    for (const answer of answers)
      states.push((await (await platformThat(saying(answer))).snapshot('c1')).state)
    expect(states).toEqual(['refused', 'refused', 'unknown', 'unknown'])
    expect(performance.now() - started).toBeLessThan(5000)
  })
})

describe('two thousand answers of a platform that has gone wrong', () => {
  it('are each answered in words, and believed only where they are about what was asked', async () => {
    const sound: unknown[] = [
      { ...course('c1'), modules: [module('m1'), { ...module('m2'), modules: [module('m3')] }] },
      { revision: '7', ids: { 'new-1': 'm1' }, course: course('c1') },
      {
        courses: [{ id: 'c1', name: 'N', status: 'teaching', revision: '1', cursor: 3 }],
        cursor: 3,
      },
    ]
    /** Something of a value is something else. */
    const spoilt = (value: unknown, at: number, by: unknown): unknown => {
      if (value === null || typeof value !== 'object' || at % 5 === 4) return by
      const keys = Object.keys(value)
      const key = keys[at % Math.max(1, keys.length)]
      if (key === undefined) return by
      const copy = structuredClone(value) as Record<string, unknown>
      copy[key] = spoilt(copy[key], Math.floor(at / 3), by)
      return copy
    }
    let answer = ''
    let status = 200
    const connector = await platformThat((_, response) =>
      response.writeHead(status, { 'content-type': 'application/json' }).end(answer),
    )
    const cases = fc.record({
      of: fc.nat(2),
      at: fc.nat(10_000),
      by: fc.oneof(
        fc.jsonValue({ maxDepth: 3 }),
        fc.constantFrom('c2', '', null, -1, 1e308, 'x'.repeat(5000)),
      ),
      cut: fc.nat(400),
      status: fc.constantFrom(200, 200, 200, 201, 204, 400, 404, 409, 418, 500),
    })
    await fc.assert(
      fc.asyncProperty(cases, async (given) => {
        const text = JSON.stringify(spoilt(sound[given.of], given.at, given.by)) ?? ''
        answer = given.cut < 40 ? text.slice(0, given.cut) : text
        status = given.status
        for (const got of [
          await connector.snapshot('c1'),
          await connector.apply('c1', 'key', set),
          await connector.list(0),
        ]) {
          if (got.state !== 'answered') expect(got.detail.length).toBeGreaterThan(0)
          else {
            const { value } = got
            const of = 'courses' in value ? 'c1' : 'course' in value ? value.course.id : value.id
            expect(of).toBe('c1')
            expect(status).toBeLessThan(300)
          }
        }
      }),
      propertyRuns(),
    )
  }, 120_000)
})

describe('a refusal', () => {
  it('says whether asking again may help, and when', async () => {
    const problem = { type: 'x', title: 'refused', status: 409, code: 'stale-revision' }
    const asked = async (lie: Lie) => (await platformThat(lie)).snapshot('c1')
    expect(await asked(saying(problem, 409))).toMatchObject({
      state: 'refused',
      code: 'stale-revision',
    })
    expect(await asked(saying('', 429, { 'retry-after': '3' }))).toMatchObject({
      state: 'later',
      afterSeconds: 3,
    })
    expect(await asked(saying('', 503, { 'retry-after': '1000000000' }))).toMatchObject({
      state: 'later',
      afterSeconds: 3600,
    })
    expect(await asked(saying('', 500))).toMatchObject({ state: 'unknown' })
    expect(await asked(saying('', 302, { location: 'http://127.0.0.1:9/' }))).toMatchObject({
      state: 'unknown',
    })
  })
  // RFC 9110, 10.2.3: seconds as digits, or a date in one of the forms of 5.6.7; the dates are its examples.
  it.each([
    ['Sun, 06 Nov 1994 08:49:37 GMT', 'Sun, 06 Nov 1994 08:48:37 GMT', 60],
    ['Sunday, 06-Nov-94 08:49:37 GMT', 'Sun, 06 Nov 1994 08:48:37 GMT', 60],
    ['Sun, 06 Nov 1994 08:49:37 GMT', 'Sun, 06 Nov 1994 08:50:37 GMT', null],
    ['120', 'Sun, 06 Nov 1994 08:48:37 GMT', 120],
    ['soon', 'Sun, 06 Nov 1994 08:48:37 GMT', null],
    ['1e9', 'Sun, 06 Nov 1994 08:48:37 GMT', null],
    ['-1', 'Sun, 06 Nov 1994 08:48:37 GMT', null],
  ])('asks to wait until %s, said at %s by its own clock', async (until, date, afterSeconds) => {
    const connector = await platformThat(saying('', 503, { 'retry-after': until, date }))
    expect(await connector.snapshot('c1')).toMatchObject({ state: 'later', afterSeconds })
  })
  it('of nobody at all means that nothing was done, by whatever way nobody is reached', async () => {
    const connector = await platformThat(() => {})
    const gone = servers.pop()
    await new Promise((resolve) => gone?.close(resolve))
    expect(await connector.apply('c1', 'key', set)).toMatchObject({ state: 'later' })
    // A name that names nothing, by RFC 2606.
    const nowhere = connectorClient({
      url: 'http://platform.invalid/',
      token: 'x',
      timeoutSeconds: 20,
    })
    expect(await nowhere.apply('c1', 'key', set)).toMatchObject({
      state: 'later',
      detail: 'the platform cannot be reached',
    })
  })
})

describe('files', () => {
  const hello = createHash('sha256').update('hello').digest('hex')
  it('that are not the ones asked for, have no end or are not there are not taken', async () => {
    const told = async (lie: Lie) => (await platformThat(lie)).readContent('c1', hello)
    expect(await told((_, response) => response.end('hello'))).toEqual({
      state: 'answered',
      value: Buffer.from('hello'),
    })
    expect(await told((_, response) => response.end('goodbye'))).toMatchObject({
      state: 'refused',
      detail: expect.stringContaining('did not send the file that it was asked for'),
    })
    expect(
      await told((_, response) => {
        const more = () => {
          while (response.write(Buffer.alloc(1_000_000)));
          response.once('drain', more)
        }
        more()
      }),
    ).toMatchObject({ state: 'unknown', detail: expect.stringContaining('more than 25 MB') })
    expect(await told(saying({ title: 'none', type: 'x', status: 404 }, 404))).toMatchObject({
      state: 'refused',
      status: 404,
    })
  })
  it('are sent piece by piece, and what is said to be kept is held against them', async () => {
    async function* pieces(): AsyncGenerator<Uint8Array> {
      yield Buffer.from('hel')
      yield Buffer.from('lo')
    }
    const taking = await platformThat(saying({ content: hello }))
    expect((await taking.putContent(hello, pieces(), 5)).state).toBe('answered')
    const lying = await platformThat(saying({ content: '0'.repeat(64) }))
    expect(await lying.putContent(hello, pieces(), 5)).toMatchObject({
      state: 'refused',
      detail: expect.stringContaining('another file is said to be kept'),
    })
  })
})
