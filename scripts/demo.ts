import { execFileSync } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statfsSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { localDateOf } from '@wickerframe/core'
import { demoClockOffset, demoPassword, demoTimeZone, demoToday, signIns } from '@wickerframe/demo'
import { endLeftOvers } from './leftOvers.ts'
import { loadDemo } from './loadDemo.ts'
import { takeFolder } from './onlyOne.ts'
import { freePort, startPrivateMariadb } from './privateMariadb.ts'
import { root, startProcess, type StartedProcess } from './processes.ts'

const started = Date.now()
const local = join(root, '.local')
const folder = join(local, 'demo')
const coursesWanted = Number(/--courses[= ](\d+)/.exec(process.argv.join(' '))?.[1] ?? 48)
mkdirSync(local, { recursive: true })

const pidsFile = join(local, 'demo-pids')
/** How far the college's clock is moved: as at an earlier start, while it is still the demo's day there. */
const clockOffset = (): number => {
  const file = join(folder, 'clock-offset')
  const kept = existsSync(file) ? Number(readFileSync(file, 'utf8')) : NaN
  if (
    Number.isFinite(kept) &&
    localDateOf(new Date(Date.now() + kept * 1000).toISOString(), demoTimeZone) === demoToday
  )
    return kept
  const offset = demoClockOffset(Date.now())
  writeFileSync(file, String(offset))
  return offset
}

const sourcesDigest = (): string => {
  const hash = createHash('sha256')
  const visit = (path: string) => {
    for (const entry of readdirSync(path, { withFileTypes: true }).sort((a, b) =>
      a.name < b.name ? -1 : 1,
    )) {
      if (['node_modules', 'dist', '.local'].includes(entry.name)) continue
      const at = join(path, entry.name)
      if (entry.isDirectory()) visit(at)
      else hash.update(`${at}:${statSync(at).size}:`).update(readFileSync(at))
    }
  }
  for (const part of ['web', 'core/src', 'contract/src']) visit(join(root, part))
  return hash.digest('hex')
}

const buildWhenStale = () => {
  const stamp = join(root, 'web/dist/.sources')
  const digest = sourcesDigest()
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return
  console.log('Building the web application …')
  execFileSync('npm', ['run', '--silent', 'build'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  writeFileSync(stamp, digest)
}

const processes: StartedProcess[] = []
let database: Awaited<ReturnType<typeof startPrivateMariadb>> | null = null
let stopping = false
let giveBack = () => {}
/** The database's files and those of 48 courses take less than a third of it. */
const leastFree = 1500 * 2 ** 20
const stopAll = async (code: number): Promise<never> => {
  stopping = true
  console.log('\nStopping …')
  await Promise.all(processes.toReversed().map((process) => process.stop()))
  await database?.stop()
  rmSync(pidsFile, { force: true })
  giveBack()
  process.exit(code)
}
const start = async (
  script: string,
  environment: Readonly<Record<string, string>>,
): Promise<StartedProcess> => {
  const program = await startProcess(script, { ...environment, WICKERFRAME_HOME: root }, (code) => {
    if (stopping) return
    console.error(`${script} ended unexpectedly (${code}).`)
    void stopAll(1)
  })
  processes.push(program)
  writeFileSync(pidsFile, processes.map((each) => each.child.pid).join('\n'))
  return program
}
/** Starts a program on a port, or on the next one when somebody else takes it in between. */
const startOnPort = async (
  wanted: number,
  begin: (port: string) => Promise<StartedProcess>,
): Promise<StartedProcess> => {
  const port = await freePort(wanted)
  try {
    return await begin(String(port))
  } catch (cause) {
    if (port > wanted + 20 || !(cause instanceof Error && cause.message.includes('EADDRINUSE')))
      throw cause
    return startOnPort(port + 1, begin)
  }
}
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    if (!stopping) void stopAll(0)
  })

try {
  const mine = takeFolder(join(local, 'demo-running'), 'demo.ts')
  if ('heldBy' in mine) {
    console.error(
      `A demo runs from this folder already (process ${mine.heldBy}); end it with Ctrl-C where it was started.`,
    )
    process.exit(1)
  }
  giveBack = mine.giveBack
  const { bavail, bsize } = statfsSync(local)
  if (bavail * bsize < leastFree)
    throw new Error(
      `There are only ${Math.round((bavail * bsize) / 2 ** 20)} MB free on this disk, and the demo needs ${leastFree / 2 ** 20}; free some space and start again.`,
    )
  await endLeftOvers(pidsFile, root)
  if (process.argv.includes('--fresh')) {
    const old = existsSync(folder)
      ? await startPrivateMariadb(join(folder, 'mariadb')).catch(() => null)
      : null
    await old?.stop()
    rmSync(folder, { recursive: true, force: true })
  }
  mkdirSync(folder, { recursive: true })
  buildWhenStale()
  database = await startPrivateMariadb(join(folder, 'mariadb'))
  const tokenFile = join(folder, 'platform-token')
  if (!existsSync(tokenFile))
    writeFileSync(tokenFile, randomBytes(24).toString('base64url'), { mode: 0o600 })
  const common = {
    DATABASE_PORT: String(database.port),
    DATABASE_PASSWORD: database.password,
    PLATFORM_TOKEN: readFileSync(tokenFile, 'utf8'),
    INSTITUTION_TIME_ZONE: demoTimeZone,
    INSTITUTION_CLOCK_OFFSET_SECONDS: String(clockOffset()),
  }
  const platform = await startOnPort(4320, (port) =>
    start('platform/src/main.ts', { ...common, PLATFORM_PORT: port }),
  )
  const platformUrl = `http://127.0.0.1:${String(platform.said['listening'])}`
  const identityPort = String(await freePort(4330))
  const outside = {
    OIDC_ISSUER: `http://127.0.0.1:${identityPort}`,
    OIDC_CLIENT_ID: 'wickerframe',
    OIDC_CLIENT_SECRET: randomBytes(24).toString('base64url'),
    OIDC_NAME: 'Kestrel Sound',
    OIDC_ROLES: 'faculty=instructor,course-design=designer',
  }
  const mailPort = String(await freePort(4341))
  const mailbox = await startOnPort(4340, (port) =>
    start('mailbox/office/main.ts', { MAILBOX_PORT: mailPort, MAILBOX_PAGE_PORT: port }),
  )
  const mail = {
    MAIL_SERVER: `smtp://127.0.0.1:${mailPort}`,
    MAIL_FROM: 'wickerframe@kestrelsound.example',
  }
  let environment: Readonly<Record<string, string>> = common
  const server = await startOnPort(4310, (port) => {
    environment = {
      ...common,
      ...outside,
      ...mail,
      PLATFORM_URL: platformUrl,
      WICKERFRAME_PUBLIC_URL: `http://127.0.0.1:${port}`,
    }
    return start('server/src/main.ts', { ...environment, WICKERFRAME_PORT: port })
  })
  await start('identity/provider/main.ts', {
    ...outside,
    IDENTITY_PORT: identityPort,
    IDENTITY_REDIRECT: `${environment['WICKERFRAME_PUBLIC_URL']}/api/sign-in/outside/back`,
  })
  await start('server/src/worker.ts', environment)
  await loadDemo({ ...process.env, ...environment }, coursesWanted, (text) => console.log(text))

  console.log(`
Wickerframe is ready (${((Date.now() - started) / 1000).toFixed(1)} s):

  http://127.0.0.1:${String(server.said['listening'])}

Today is ${demoToday}, Wednesday of week 3. Sign in with the password ${demoPassword} as
${signIns.map((person) => `  ${person.email.padEnd(44)} ${person.roles.join(' and ')}, ${person.name}`).join('\n')}

Or sign in with Kestrel Sound, a practice identity provider, where one picks who one is.
The practice platform, where one plays instructor: ${platformUrl}
The practice mailbox, where mail is read that people would get: http://127.0.0.1:${String(mailbox.said['listening'])}
Ctrl-C stops everything. “npm run demo -- --fresh” starts over.`)
} catch (cause) {
  console.error(cause instanceof Error ? cause.message : cause)
  await stopAll(1)
}
