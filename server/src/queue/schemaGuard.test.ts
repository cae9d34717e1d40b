import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Pool } from 'mysql2/promise'
import { afterAll, describe, expect, it } from 'vitest'
import { schemaGuard } from './schemaGuard.ts'

const folder = mkdtempSync(join(tmpdir(), 'wickerframe-schema-'))
afterAll(() => rmSync(folder, { recursive: true }))
const files = ['0001-one.sql', '0002-two.sql']
for (const name of files)
  writeFileSync(join(folder, name), `CREATE TABLE t${name.slice(3, 4)} (id INT)`)
const ran = (name: string) => ({
  name,
  checksum: createHash('sha256')
    .update(`CREATE TABLE t${name.slice(3, 4)} (id INT)`)
    .digest('hex'),
})

describe('a worker on a schema that is not its own', () => {
  it('says so once and waits, and works when it is', async () => {
    let rows: { name: string; checksum: string }[] = [ran(files[0] ?? '')]
    const pool = {
      execute: (sql: string) =>
        Promise.resolve([sql.includes('information_schema') ? [{ yes: 1 }] : rows]),
    } as unknown as Pool
    const told: string[] = []
    const isOurs = schemaGuard(
      pool,
      folder,
      { warn: (words: string) => void told.push(words) } as never,
      0,
    )
    expect([await isOurs(), await isOurs()]).toEqual([false, false])
    expect(told).toEqual([expect.stringMatching(/lacks 0002-two\.sql.*this worker waits/)])
    rows = files.map(ran)
    expect(await isOurs()).toBe(true)
    rows = [...files.map(ran), { name: '0003-later.sql', checksum: 'x' }]
    expect(await isOurs()).toBe(false)
    expect(told.at(-1)).toContain('another program’s')
    rows = [ran('0001-one.sql'), { name: '0002-two.sql', checksum: 'edited' }]
    expect(await isOurs()).toBe(false)
    expect(told.at(-1)).toContain('was changed after it had run')
  })
})
