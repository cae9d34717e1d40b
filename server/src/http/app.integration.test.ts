import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Pool } from 'mysql2/promise'
import { pino } from 'pino'
import { afterEach, describe, expect, it } from 'vitest'
import type { Connector } from '../connector/client.ts'
import { institutionClock } from '../start/clocks.ts'
import { makeApp } from './app.ts'

const servers: Server[] = []
afterEach(() => {
  for (const server of servers.splice(0)) {
    server.closeAllConnections()
    server.close()
  }
})
/** The application over a database that answers every statement so. */
const over = async (execute: () => Promise<unknown>): Promise<string> => {
  const server = createServer(
    makeApp({
      pool: { execute, query: execute, getConnection: execute } as unknown as Pool,
      connector: {} as Connector,
      files: { read: () => Promise.reject(new Error('no files here')), stop: async () => {} },
      reports: { write: () => Promise.reject(new Error('no reports here')) },
      clock: institutionClock('America/Halifax', 0),
      webFolder: '/nowhere',
      platformUrl: 'http://127.0.0.1:1',
      publicUrl: 'https://wickerframe.example',
      outside: null,
      localAccounts: true,
      sendsMail: true,
      secureCookies: false,
      proxies: 0,
      holdAnswers: true,
      ending: new AbortController().signal,
      log: pino({ level: 'silent' }),
    }),
  )
  servers.push(server)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`
}
const failing =
  (code: string, message = code) =>
  () =>
    Promise.reject(Object.assign(new Error(message), { code }))

describe('a database that is away', () => {
  it.each([
    ['a node of a cluster that is not part of it (1047)', failing('ER_UNKNOWN_COM_ERROR')],
    ['one that is not there', failing('ECONNREFUSED')],
    ['one that was cut off', failing('PROTOCOL_CONNECTION_LOST')],
    ['one that may not be written to', failing('ER_OPTION_PREVENTS_STATEMENT')],
    ['one whose disk is full', failing('ER_RECORD_FILE_FULL')],
    ['one that says nothing', () => new Promise<never>(() => {})],
  ])('is 503 with when to come back, on every route: %s', async (_, execute) => {
    const address = await over(execute)
    const asked = await Promise.all(
      ['/api/health', '/api/me', '/api/courses', '/api/today'].map((path) =>
        fetch(address + path, { headers: { cookie: 'wickerframe-session=x' } }),
      ),
    )
    for (const answer of asked) {
      expect([answer.url, answer.status]).toEqual([answer.url, 503])
      expect(Number(answer.headers.get('retry-after'))).toBeGreaterThan(0)
      const text = await answer.text()
      expect(text).toContain('try again in')
      expect(text).not.toMatch(/ER_|ECONN|PROTOCOL|at .*\.ts/)
    }
  })
  it('is not what is told where the database is there and refuses something', async () => {
    const address = await over(failing('ER_BAD_FIELD_ERROR', "Unknown column 'x' in 'SELECT'"))
    const answer = await fetch(`${address}/api/health`)
    expect(answer.status).toBe(500)
    expect(await answer.text()).not.toContain('column')
  })
})

describe('addresses that machines ask for', () => {
  it('are never answered with the page', async () => {
    const address = await over(() => Promise.resolve([[]]))
    for (const path of ['/api/nothing', '/api', '/healthz', '/readyz', '/metrics', '/metrics/x'])
      expect([path, (await fetch(address + path)).status]).toEqual([path, 404])
  })
})
