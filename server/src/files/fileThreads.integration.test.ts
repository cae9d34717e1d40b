import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { fileThreads } from './fileThreads.ts'

const folder = mkdtempSync(join(tmpdir(), 'wickerframe-files-'))
afterAll(() => rmSync(folder, { recursive: true }))
/** A thread that reads a file by doing what its first letter says. */
const program = join(folder, 'thread.mjs')
writeFileSync(
  program,
  `import { parentPort } from 'node:worker_threads'
parentPort.on('message', ({ id, bytes }) => {
  const letter = String.fromCharCode(bytes[0])
  if (letter === 'l') for (;;) {}
  if (letter === 's') for (const began = performance.now(); performance.now() - began < 1500; ) {}
  if (letter === 'm') { const all = []; for (;;) all.push(new Array(1e6).fill(id)) }
  if (letter === 'x') process.exit(1)
  if (letter === 't') throw new Error('thrown out of the reader')
  if (letter === 'f') return parentPort.postMessage({ id, failed: 'not like this' })
  parentPort.postMessage({ id, reading: 'read ' + letter })
})
`,
)
const settings = {
  threads: 2,
  deadlineSeconds: 1,
  slowestBytes: 100_000,
  mostMegabytes: 40,
  mostWaiting: 30,
}
const letter = (text: string) => new TextEncoder().encode(text)

describe('threads that read files', () => {
  it('answer each file, and give up what loops, eats memory, dies, throws or fails, while others are read', async () => {
    const files = fileThreads(program, settings)
    const began = performance.now()
    const read = [...'alambxctdfe'].map(async (one) => {
      try {
        return String(await files.read('rubric', letter(one), {}))
      } catch (cause) {
        return cause instanceof Error ? cause.message : ''
      }
    })
    const told = await Promise.all(read)
    await files.stop()
    expect(told.filter((line) => line.startsWith('read '))).toEqual(
      [...'aabcde'].map((letter) => `read ${letter}`),
    )
    expect(told[1]).toMatch(/given up after 1 seconds/)
    for (const at of [3, 5, 7]) expect(told[at]).toMatch(/could not be read/)
    expect(told[9]).toMatch(/not like this/)
    expect(performance.now() - began).toBeLessThan(10_000)
  })
  it('give a long file longer: reading it may take its time', async () => {
    const files = fileThreads(program, settings)
    const long = new Uint8Array(2_000_000).fill(letter('s')[0] ?? 0)
    const short = files.read('rubric', letter('s'), {}).catch(String)
    expect(await files.read('rubric', long, {})).toBe('read s')
    expect(await short).toMatch(/given up after 1 seconds/)
    await files.stop()
  })
  it('refuse who comes when too many wait, and those who wait when they are stopped', async () => {
    const files = fileThreads(program, { ...settings, threads: 1, mostWaiting: 1 })
    const ended = (text: string) =>
      files.read('rubric', letter(text), {}).then(
        () => 'read',
        (cause: Error) => cause.message,
      )
    const told = [ended('l'), ended('a'), ended('b')]
    expect(await told[2]).toMatch(/in a moment/)
    await files.stop()
    for (const at of [0, 1]) expect(await told[at]).toMatch(/being stopped/)
  })
})
