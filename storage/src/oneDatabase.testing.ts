import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { startPrivateMariadb } from '@wickerframe/scripts/privateMariadb'

/** Where the database of a test run listens. */
export interface TestDatabase {
  port: number
  password: string
}
declare module 'vitest' {
  interface ProvidedContext {
    database: TestDatabase
  }
}

/** One private MariaDB for all repository tests of a run; each takes a schema of its own there. */
export default async (project: TestProject): Promise<() => Promise<void>> => {
  const folder = mkdtempSync(join(tmpdir(), 'wf-database-'))
  const running = await startPrivateMariadb(join(folder, 'mariadb'), { quickAndUnsafe: true })
  project.provide('database', { port: running.port, password: running.password })
  return async () => {
    await running.discard()
    rmSync(folder, { recursive: true, force: true })
  }
}
