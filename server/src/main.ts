import { once } from 'node:events'
import { createServer } from 'node:http'
import { fileURLToPath } from 'node:url'
import { pino } from 'pino'
import { fileThreads } from './files/fileThreads.ts'
import { makeApp } from './http/app.ts'
import { outsideProvider } from './people/outside/provider.ts'
import { reportThreads } from './reports/reportThreads.ts'
import { openDatabase } from './start/openDatabase.ts'
import { platformOf } from './start/platformOf.ts'
import { orSayAndEnd } from './start/sayAndEnd.ts'
import { stopServer } from './start/stopServer.ts'
import { clockOf, readSettings } from './start/settings.ts'

/** Answers people, and hands the files that they bring in to threads. */
const serve = async (): Promise<void> => {
  const settings = readSettings(process.env)
  const pool = await openDatabase(settings)
  const files = fileThreads(fileURLToPath(new URL('fileProgram.mjs', import.meta.url)))
  const ending = new AbortController()
  const app = makeApp({
    pool,
    ending: ending.signal,
    connector: platformOf(settings, pool, files),
    files,
    reports: reportThreads(fileURLToPath(new URL('reportProgram.mjs', import.meta.url))),
    clock: clockOf(settings),
    webFolder: fileURLToPath(new URL('../../web/dist', import.meta.url)),
    platformUrl: settings.PLATFORM_URL,
    publicUrl: settings.WICKERFRAME_PUBLIC_URL,
    outside: settings.outside && outsideProvider(settings.outside),
    localAccounts: settings.LOCAL_ACCOUNTS === 'yes',
    sendsMail: settings.mail !== null,
    secureCookies: settings.secureCookies,
    proxies: settings.WICKERFRAME_PROXIES,
    holdAnswers: settings.WICKERFRAME_HOLD_ANSWERS === 'yes',
    log: pino({ level: 'warn' }),
  })
  const server = createServer(app)
  // Longer than browsers and proxies keep a connection that rests: who sends on one that is just being closed gets no answer.
  server.keepAliveTimeout = 75_000
  server.headersTimeout = 80_000
  server.listen(settings.WICKERFRAME_PORT, settings.WICKERFRAME_HOST)
  await once(server, 'listening')
  const bound = server.address()
  console.log(
    JSON.stringify({
      listening: typeof bound === 'object' && bound ? bound.port : settings.WICKERFRAME_PORT,
    }),
  )

  const stop = () => {
    if (ending.signal.aborted) return
    ending.abort()
    void stopServer(server, 10)
      .then(() => Promise.all([pool.end(), files.stop()]))
      .then(() => process.exit(0))
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
}

await orSayAndEnd(serve)
