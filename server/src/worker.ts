import { hostname } from 'node:os'
import { fileURLToPath } from 'node:url'
import { isMainThread } from 'node:worker_threads'
import { pino } from 'pino'
import { connect } from '@wickerframe/storage'
import { connectorClient } from './connector/client.ts'
import { judgePool } from './jobs/judgePool.ts'
import { serveJudgements } from './jobs/judgeThread.ts'
import { schemaGuard } from './jobs/schemaGuard.ts'
import { startWorker } from './jobs/worker.ts'
import { migrationsFolder } from './openDatabase.ts'
import { orSayAndEnd } from './sayAndEnd.ts'
import { clockOf, databaseAddress, readSettings } from './settings.ts'

/** In the main thread: claims tasks, talks to the platform, hands what is heavy to threads of this very program. */
const work = async (): Promise<void> => {
  const settings = readSettings(process.env)
  const pool = connect(databaseAddress(settings), settings.WORKER_CONCURRENCY + 4)
  const connector = connectorClient({
    url: settings.PLATFORM_URL,
    token: settings.PLATFORM_TOKEN,
    timeoutSeconds: settings.CONNECTOR_TIMEOUT_SECONDS,
  })
  const log = pino({ level: 'warn' })
  const judging = judgePool(fileURLToPath(import.meta.url), settings.WORKER_THREADS)
  const worker = startWorker(
    pool,
    connector,
    {
      name: `${hostname()} ${process.pid}`,
      leaseSeconds: settings.WORKER_LEASE_SECONDS,
      concurrency: settings.WORKER_CONCURRENCY,
      clock: clockOf(settings),
      publicUrl: settings.WICKERFRAME_PUBLIC_URL,
      judge: judging.judge,
      isOurs: schemaGuard(pool, migrationsFolder, log),
    },
    log,
  )
  console.log(JSON.stringify({ working: settings.WORKER_CONCURRENCY }))
  let stopping = false
  const stop = () => {
    if (stopping) return
    stopping = true
    void worker
      .stop()
      .then(() => judging.stop())
      .then(() => pool.end())
      .then(() => process.exit(0))
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
}

if (isMainThread) await orSayAndEnd(work)
else serveJudgements(connect(databaseAddress(readSettings(process.env)), 3))
