import { spawn, spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createConnection } from 'mysql2/promise'

export interface RunningMariadb {
  port: number
  password: string
  pid: number
  stop: () => Promise<void>
  /** Ends it at once, where nobody wants what it holds any more. */
  discard: () => Promise<void>
}

/** A TCP port of the loopback that is free now; `wanted` if that is. */
export const freePort = (wanted = 0): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = createServer()
    probe.once('error', () =>
      wanted === 0
        ? reject(new Error('no free port'))
        : resolve(freePort(wanted < 65_000 ? wanted + 1 : 0)),
    )
    probe.listen(wanted, '127.0.0.1', () => {
      const bound = probe.address()
      probe.close(() => resolve(typeof bound === 'object' && bound ? bound.port : wanted))
    })
  })

const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds))
const program = (name: string): string =>
  existsSync(`/usr/sbin/${name}`) ? `/usr/sbin/${name}` : name

/**
 * Starts a MariaDB of our own on loopback, its data in a folder of its own, with a password of its own; never the
 * machine's server. One that was left running on the same folder is taken over.
 */
export const startPrivateMariadb = async (
  folder: string,
  {
    quickAndUnsafe = false,
    certificate,
  }: {
    quickAndUnsafe?: boolean
    /** Files in PEM with which the server speaks TLS. */
    certificate?: { file: string; keyFile: string }
  } = {},
): Promise<RunningMariadb> => {
  mkdirSync(folder, { recursive: true })
  const data = join(folder, 'data')
  const pidFile = join(folder, 'mariadb.pid')
  const portFile = join(folder, 'port')
  const passwordFile = join(folder, 'password')
  const asRoot = process.getuid?.() === 0 ? ['--user=root'] : []

  if (existsSync(pidFile) && existsSync(portFile) && existsSync(passwordFile)) {
    const pid = Number(readFileSync(pidFile, 'utf8'))
    const running = {
      port: Number(readFileSync(portFile, 'utf8')),
      password: readFileSync(passwordFile, 'utf8'),
    }
    if (isAlive(pid) && (await answers(running))) return { ...running, pid, ...ending(pid, null) }
  }
  if (!existsSync(join(data, 'mysql'))) {
    const made = spawnSync(
      program('mariadb-install-db'),
      [
        '--no-defaults',
        '--auth-root-authentication-method=normal',
        '--skip-test-db',
        `--datadir=${data}`,
        ...asRoot,
      ],
      { encoding: 'utf8' },
    )
    if (made.status !== 0)
      throw new Error(
        `mariadb-install-db failed: ${made.stderr || made.stdout || String(made.error)}`,
      )
  }
  const password = existsSync(passwordFile)
    ? readFileSync(passwordFile, 'utf8')
    : randomBytes(18).toString('base64url')
  writeFileSync(passwordFile, password, { mode: 0o600 })
  const initFile = join(folder, 'init.sql')
  writeFileSync(initFile, `ALTER USER 'root'@'localhost' IDENTIFIED BY '${password}';\n`, {
    mode: 0o600,
  })
  const temporary = join(folder, 'tmp')
  rmSync(temporary, { recursive: true, force: true })
  mkdirSync(temporary, { recursive: true })
  const port = await freePort()
  // A socket's path has at most 107 bytes, so it stands in a short folder.
  const socketFolder = mkdtempSync(join(tmpdir(), 'wf-'))
  const log = openSync(join(folder, 'mariadb.log'), 'a')
  const child = spawn(
    program('mariadbd'),
    [
      '--no-defaults',
      ...asRoot,
      `--datadir=${data}`,
      `--socket=${join(socketFolder, 's')}`,
      `--pid-file=${pidFile}`,
      `--tmpdir=${temporary}`,
      `--port=${port}`,
      '--bind-address=127.0.0.1',
      `--init-file=${initFile}`,
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_nopad_bin',
      '--innodb-buffer-pool-size=256M',
      `--innodb-log-file-size=${quickAndUnsafe ? 32 : 128}M`,
      '--max-allowed-packet=64M',
      '--transaction-isolation=READ-COMMITTED',
      '--skip-name-resolve=0',
      ...(quickAndUnsafe
        ? [
            '--innodb-flush-log-at-trx-commit=0',
            '--sync-binlog=0',
            '--innodb-flush-method=nosync',
            // Those of tests are copied whole, and taken away again: they are no larger than they need to be.
            '--innodb-autoextend-increment=4',
          ]
        : []),
      ...(certificate
        ? [`--ssl-cert=${certificate.file}`, `--ssl-key=${certificate.keyFile}`]
        : []),
    ],
    // A process group of its own: Ctrl-C in the terminal must not reach it before those who use it have ended.
    { detached: true, stdio: ['ignore', log, log] },
  )
  child.unref()
  const pid = child.pid
  if (pid === undefined) throw new Error('mariadbd could not be started')
  writeFileSync(portFile, String(port))
  const until = Date.now() + 60_000
  while (!(await answers({ port, password }))) {
    if (!isAlive(pid) || child.exitCode !== null)
      throw new Error(whyEnded(join(folder, 'mariadb.log')))
    if (Date.now() > until)
      throw new Error(`mariadbd did not answer in a minute; see ${join(folder, 'mariadb.log')}`)
    await pause(100)
  }
  return { port, password, pid, ...ending(pid, socketFolder) }
}

/** The ways in which a database is ended. @param folder is taken away then */
const ending = (pid: number, folder: string | null): Pick<RunningMariadb, 'stop' | 'discard'> => {
  const by = (signal: NodeJS.Signals) => async () => {
    await stopProcess(pid, signal)
    if (folder !== null) rmSync(folder, { recursive: true, force: true })
  }
  return { stop: by('SIGTERM'), discard: by('SIGKILL') }
}

/** Why the database ended, as its log has it: in words where they are known. */
const whyEnded = (logFile: string): string => {
  const last = readFileSync(logFile, 'utf8').slice(-20_000)
  return /No space left on device|errno: 28|Disk is full/i.test(last)
    ? 'The disk is full, so the database cannot start; free some space and start again.'
    : `mariadbd ended at once; see ${logFile}. Its last words: ${last.trim().split('\n').at(-1) ?? ''}`
}

const answers = async ({
  port,
  password,
}: {
  port: number
  password: string
}): Promise<boolean> => {
  try {
    const connection = await createConnection({
      host: '127.0.0.1',
      port,
      user: 'root',
      password,
      connectTimeout: 2000,
    })
    await connection.end()
    return true
  } catch {
    return false
  }
}

const stopProcess = async (pid: number, signal: NodeJS.Signals): Promise<void> => {
  if (!isAlive(pid)) return
  process.kill(pid, signal)
  for (let i = 0; i < 1500 && isAlive(pid); i++) await pause(20)
}
