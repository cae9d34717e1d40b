import { hostname } from 'node:os'
import { pino } from 'pino'
import { connect } from '@wickerframe/storage'
import { connectorClient } from './connector/client.ts'
import { startWorker } from './jobs/worker.ts'
import { databaseAddress, readSettings, todayOf } from './settings.ts'

const settings = readSettings(process.env)
const pool = connect(databaseAddress(settings), settings.WORKER_CONCURRENCY + 4)
const connector = connectorClient({ url: settings.PLATFORM_URL, token: settings.PLATFORM_TOKEN, timeoutSeconds: settings.CONNECTOR_TIMEOUT_SECONDS })
const worker = startWorker(pool, connector, { name: `${hostname()} ${process.pid}`, leaseSeconds: settings.WORKER_LEASE_SECONDS, concurrency: settings.WORKER_CONCURRENCY, today: () => todayOf(settings), publicUrl: settings.WICKERFRAME_PUBLIC_URL }, pino({ level: 'warn' }))
console.log(JSON.stringify({ working: settings.WORKER_CONCURRENCY }))

let stopping = false
const stop = () => {
  if (stopping) return
  stopping = true
  void worker.stop().then(() => pool.end()).then(() => process.exit(0))
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
