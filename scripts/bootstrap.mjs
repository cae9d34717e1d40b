// What a fresh clone lacks: packages, Debian's MariaDB, Debian's Chromium. Plain Node.js, nothing else is there yet.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = fileURLToPath(new URL('..', import.meta.url))
const local = join(root, '.local')

const run = (command, args, env = {}) =>
  spawnSync(command, args, {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  }).status === 0
const has = (program) =>
  spawnSync('sh', ['-c', `command -v ${program}`], { stdio: 'ignore' }).status === 0 ||
  existsSync(`/usr/sbin/${program}`)

class Missing extends Error {}

/** Installs npm packages when the lock file is not the one that was installed last. */
export const ensurePackages = () => {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const stamp = join(root, 'node_modules', '.wickerframe-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  console.log('Installing packages …')
  if (!run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']))
    throw new Missing('npm ci failed; what it said stands above')
  writeFileSync(stamp, lock)
}

const ensureDebianPackage = (program, packageName) => {
  if (has(program)) return
  const asRoot =
    process.getuid?.() === 0
      ? []
      : has('sudo') && spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0
        ? ['sudo', '-n']
        : null
  const sentence = `${program} is not installed, and installing it takes rights you do not have here: ask someone who has them to run “apt-get install ${packageName}”.`
  if (asRoot === null) throw new Missing(sentence)
  console.log(`Installing Debian’s ${packageName} …`)
  const quiet = { DEBIAN_FRONTEND: 'noninteractive' }
  const apt = (...args) =>
    run(
      ...(asRoot.length > 0
        ? ['sudo', ['-n', 'DEBIAN_FRONTEND=noninteractive', 'apt-get', ...args]]
        : ['apt-get', args]),
      quiet,
    )
  // A server that comes with the package must not start: Wickerframe runs one of its own.
  if (
    !(
      apt('-qq', 'update') && apt('-qq', '-y', '--no-install-recommends', 'install', packageName)
    ) ||
    !has(program)
  )
    throw new Missing(
      `Debian’s ${packageName} could not be installed; what apt-get said stands above`,
    )
}

export const ensureMariadb = () => ensureDebianPackage('mariadbd', 'mariadb-server')
export const ensureOpenssl = () => ensureDebianPackage('openssl', 'openssl')
/** Chromium without its windows, which take more work than most pages; the whole one will do where only that is there. */
export const ensureChromium = () => {
  try {
    ensureDebianPackage('chromium-headless-shell', 'chromium-headless-shell')
  } catch (cause) {
    if (!(cause instanceof Missing)) throw cause
    ensureDebianPackage('chromium', 'chromium')
  }
}

/** Does the work, and turns what is missing into a sentence. */
export const orSay = (work) => {
  try {
    mkdirSync(local, { recursive: true })
    work()
  } catch (cause) {
    if (!(cause instanceof Missing)) throw cause
    console.error(cause.message)
    process.exit(1)
  }
}
