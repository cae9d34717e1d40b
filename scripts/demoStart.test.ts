import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it, vi } from 'vitest'
import { endLeftOvers } from './leftOvers.ts'
import { takeFolder } from './onlyOne.ts'

const folder = mkdtempSync(join(tmpdir(), 'wickerframe-demo-'))
afterAll(() => rmSync(folder, { recursive: true }))
const program = join(folder, 'program.mjs')
writeFileSync(program, 'setInterval(() => {}, 1000)\nconsole.log("there")\n')

const begun = async (environment: Record<string, string>) => {
  const child = spawn(process.execPath, [program], {
    env: { PATH: process.env['PATH'], ...environment },
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  await new Promise((resolve) => child.stdout.once('data', resolve))
  return child
}
const hasEnded = (child: Awaited<ReturnType<typeof begun>>) =>
  child.exitCode !== null || child.signalCode !== null

describe('programs of a demo that was killed outright', () => {
  it('are ended at the next start, and nobody else’s', async () => {
    const ours = await begun({ WICKERFRAME_HOME: folder })
    const others = await begun({ WICKERFRAME_HOME: '/elsewhere' })
    const file = join(folder, 'pids')
    writeFileSync(file, [ours.pid, others.pid, process.pid, 999_999_999, 'x', ''].join('\n'))
    try {
      expect(await endLeftOvers(file, folder)).toEqual([ours.pid])
      await vi.waitUntil(() => hasEnded(ours), { timeout: 60_000 })
      expect(hasEnded(others)).toBe(false)
    } finally {
      ours.kill('SIGKILL')
      others.kill('SIGKILL')
    }
  })
})

describe('a folder', () => {
  it('is one demo’s at a time; that of a process that is gone is taken over', async () => {
    const file = join(folder, 'running')
    const other = await begun({})
    writeFileSync(file, String(other.pid))
    expect(takeFolder(file, 'program.mjs')).toEqual({ heldBy: other.pid })
    other.kill('SIGKILL')
    await new Promise((resolve) => other.once('exit', resolve))
    const taken = takeFolder(file, 'program.mjs')
    expect(taken).toHaveProperty('giveBack')
    if ('giveBack' in taken) taken.giveBack()
    // The number is another program's by now.
    writeFileSync(file, String(process.ppid))
    expect(takeFolder(file, 'program.mjs')).toHaveProperty('giveBack')
    writeFileSync(file, 'not a number')
    expect(takeFolder(file, 'program.mjs')).toHaveProperty('giveBack')
  })
})
