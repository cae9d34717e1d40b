import { hostname } from 'node:os'
import { fileURLToPath } from 'node:url'
import { isMainThread } from 'node:worker_threads'
import { pino } from 'pino'
import { connect } from '@wickerframe/storage'
import { checkPool } from './checks/checkPool.ts'
import { serveChecks } from './checks/checkThread.ts'
import { followPlatform } from './follow/followPlatform.ts'
import { fileThreads } from './files/fileThreads.ts'
import { keepHouse } from './housekeeping.ts'
import { mailerFor } from './mail/mailer.ts'
import { sendMail } from './mail/sendMail.ts'
import { schemaGuard } from './queue/schemaGuard.ts'
import { startWorker } from './queue/worker.ts'
import { keepSchedules } from './schedules/keepSchedules.ts'
import { closeFinishedRun, closeFinishedRuns } from './runs/closing.ts'
import { migrationsFolder } from './migrationsFolder.ts'
import { platformOf } from './start/platformOf.ts'
import { orSayAndEnd } from './start/sayAndEnd.ts'
import { carryOut } from './work.ts'
import { clockOf, databaseAddress, readSettings } from './start/settings.ts'

/** In the main thread: claims tasks, talks to the platform, hands what is heavy to threads of this very program. */
const work = async (): Promise<void> => {
  const settings = readSettings(process.env)
  const pool = connect(databaseAddress(settings), settings.WORKER_CONCURRENCY + 4)
  const files = fileThreads(fileURLToPath(new URL('fileProgram.mjs', import.meta.url)))
  const connector = platformOf(settings, pool, files)
  const log = pino({ level: 'warn' })
  const checking = checkPool(fileURLToPath(import.meta.url), settings.WORKER_THREADS)
  const clock = clockOf(settings)
  const mailer = settings.mail && mailerFor(settings.mail)
  const name = `${hostname()} ${process.pid}`
  const worker = startWorker(
    pool,
    {
      name,
      leaseSeconds: settings.WORKER_LEASE_SECONDS,
      concurrency: settings.WORKER_CONCURRENCY,
      jobOf: (task, lease) => ({
        pool,
        connector,
        checkCourse: checking.checkCourse,
        foreseeCourse: checking.foreseeCourse,
        task,
        today: clock.today(),
        publicUrl: settings.WICKERFRAME_PUBLIC_URL,
        lease,
      }),
      carryOut,
      isOurs: schemaGuard(pool, migrationsFolder, log),
      settled: (run) => closeFinishedRun(pool, run),
      collected: () => closeFinishedRuns(pool),
      chores: [
        {
          what: 'housekeeping',
          everySeconds: 60,
          work: () => keepHouse(pool, settings.keep, clock.today()),
        },
        { what: 'schedules', everySeconds: 15, work: () => keepSchedules(pool, clock.now()) },
        ...(mailer
          ? [
              {
                what: 'mail',
                everySeconds: 60,
                work: () => sendMail(pool, mailer, settings.WICKERFRAME_PUBLIC_URL, log),
              },
            ]
          : []),
        ...(settings.PLATFORM_FOLLOW_SECONDS > 0
          ? [
              {
                what: 'following the platform',
                everySeconds: settings.PLATFORM_FOLLOW_SECONDS,
                work: () => followPlatform(pool, connector, name),
              },
            ]
          : []),
      ],
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
      .then(() => Promise.all([checking.stop(), files.stop()]))
      .then(() => mailer?.close())
      .then(() => pool.end())
      .then(() => process.exit(0))
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
}

if (isMainThread) await orSayAndEnd(work)
else serveChecks(connect(databaseAddress(readSettings(process.env)), 3))
