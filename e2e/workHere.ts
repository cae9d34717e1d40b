import { pino } from 'pino'
import { checkStored, foreseeCourses } from '@wickerframe/server/checks/checkThread'
import { connectorClient } from '@wickerframe/server/connector/client'
import { startWorker } from '@wickerframe/server/queue/worker'
import { closeFinishedRun, closeFinishedRuns } from '@wickerframe/server/runs/closing'
import { clockOf, databaseAddress, readSettings } from '@wickerframe/server/start/settings'
import { carryOut } from '@wickerframe/server/work'
import { connect } from '@wickerframe/storage'
import type { TestBed } from './testBed.ts'

/**
 * Works on what is to be done in this very process, as a worker does: a test that lets things be done many times need not start
 * a program each time.
 */
export const workHere = (bed: TestBed): { stop: () => Promise<void> } => {
  const settings = readSettings({ ...process.env, ...bed.environment, WICKERFRAME_PORT: '0' })
  const pool = connect(databaseAddress(settings), 8)
  const clock = clockOf(settings)
  const connector = connectorClient({
    url: settings.PLATFORM_URL,
    token: settings.PLATFORM_TOKEN,
    timeoutSeconds: settings.CONNECTOR_TIMEOUT_SECONDS,
  })
  const worker = startWorker(
    pool,
    {
      name: 'this test',
      leaseSeconds: settings.WORKER_LEASE_SECONDS,
      concurrency: settings.WORKER_CONCURRENCY,
      jobOf: (task, lease) => ({
        pool,
        connector,
        checkCourse: async (course, asOf, today) =>
          (await checkStored(pool, [course], asOf, today)).get(course) ?? { state: 'gone' },
        foreseeCourse: async (course, run, today) =>
          (await foreseeCourses(pool, [course], run, today)).get(course) ?? { state: 'gone' },
        task,
        today: clock.today(),
        publicUrl: settings.WICKERFRAME_PUBLIC_URL,
        lease,
      }),
      carryOut,
      isOurs: () => Promise.resolve(true),
      settled: (run) => closeFinishedRun(pool, run),
      collected: () => closeFinishedRuns(pool),
      chores: [],
    },
    pino({ level: 'warn' }),
  )
  return {
    stop: async () => {
      await worker.stop()
      await pool.end()
    },
  }
}
