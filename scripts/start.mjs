// Production: server and worker in one terminal, settings from the environment. Each may also be started alone, as often as
// wanted: `node server/dist/main.mjs`, `node server/dist/worker.mjs`. Plain Node.js, no development dependency.
import { spawn } from 'node:child_process'
import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))
const parts = { server: 'server/dist/main.mjs', worker: 'server/dist/worker.mjs' }
const missing = Object.values(parts).find(
  (file) => !existsSync(new URL(`../${file}`, import.meta.url)),
)
if (missing) {
  console.error('Wickerframe has not been built here yet: run “npm run build” first.')
  process.exit(1)
}

/** A part that lived so long is well; the next time it dies it is started at once again. */
const wellAfterMilliseconds = 60_000
const running = new Map()
let stopping = false
let exitCode = 0

/** Starts a part, and again when it dies, after a pause that doubles up to half a minute. The others go on. */
const keep = (name, pauseMilliseconds = 500, isFirst = true) => {
  const began = Date.now()
  const child = spawn(process.execPath, [parts[name]], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  running.set(name, child)
  let ready = false
  child.stdout.on('data', (text) => {
    ready = true
    process.stdout.write(`${name}: ${text}`)
  })
  child.on('exit', (ended, signal) => {
    running.delete(name)
    if (stopping) {
      if (running.size === 0) process.exit(exitCode)
      return
    }
    // What cannot start at all (a wrong setting) has said so, and starting it again does not help; later, the database may be away.
    if (!ready && ended === 1 && isFirst) return stop(1)
    const next =
      Date.now() - began > wellAfterMilliseconds ? 500 : Math.min(30_000, pauseMilliseconds * 2)
    console.error(`the ${name} ended (${signal ?? ended}); it is started again`)
    setTimeout(() => !stopping && keep(name, next, false), next)
  })
}

const stop = (withCode) => {
  if (stopping) return
  stopping = true
  exitCode = withCode
  if (running.size === 0) process.exit(exitCode)
  for (const child of running.values()) child.kill('SIGTERM')
  setTimeout(() => {
    for (const child of running.values()) child.kill('SIGKILL')
  }, 15_000).unref()
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => stop(0))
for (const name of Object.keys(parts)) keep(name)
