import { createServer } from 'node:http'
import { fileURLToPath } from 'node:url'
import { isMainThread } from 'node:worker_threads'
import { pino } from 'pino'
import { connect, createSchema, migrate } from '@wickerframe/storage'
import { connectorClient } from './connector/client.ts'
import { serveFiles } from './files/fileThread.ts'
import { fileThreads } from './files/fileThreads.ts'
import { makeApp } from './http/app.ts'
import { databaseAddress, readSettings, todayOf } from './settings.ts'

/** In the main thread: answers people, and hands the files that they bring in to threads of this very program. */
const serve = async (): Promise<void> => {
  const settings = readSettings(process.env)
  const address = databaseAddress(settings)
  await createSchema(address)
  const pool = connect(address)
  await migrate(pool, fileURLToPath(new URL('../migrations', import.meta.url)))

  const files = fileThreads(fileURLToPath(import.meta.url))
  const app = makeApp({
    pool,
    connector: connectorClient({
      url: settings.PLATFORM_URL,
      token: settings.PLATFORM_TOKEN,
      timeoutSeconds: settings.CONNECTOR_TIMEOUT_SECONDS,
    }),
    files,
    today: () => todayOf(settings),
    webFolder: fileURLToPath(new URL('../../web/dist', import.meta.url)),
    platformUrl: settings.PLATFORM_URL,
    secureCookies: settings.WICKERFRAME_SECURE_COOKIES === 'yes',
    log: pino({ level: 'warn' }),
  })
  const server = createServer(app)
  server.listen(settings.WICKERFRAME_PORT, settings.WICKERFRAME_HOST, () => {
    const bound = server.address()
    console.log(
      JSON.stringify({
        listening: typeof bound === 'object' && bound ? bound.port : settings.WICKERFRAME_PORT,
      }),
    )
  })

  let stopping = false
  const stop = () => {
    if (stopping) return
    stopping = true
    server.close()
    server.closeAllConnections()
    void Promise.all([pool.end(), files.stop()]).then(() => process.exit(0))
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
}

if (isMainThread) await serve()
else serveFiles()
