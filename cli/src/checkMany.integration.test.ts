import { execFile } from 'node:child_process'
import { copyFileSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { main } from './main.ts'

const root = fileURLToPath(new URL('../..', import.meta.url))
const example = (n: number, kind: string) => join(root, 'docs/schema/examples', `${n}-${kind}.json`)
const run = async (...args: string[]) => {
  let out = ''
  let error = ''
  const code = await main(['check', ...args, '--as-of', '2026-09-16'], {
    out: (text) => (out += text),
    error: (text) => (error += text),
    input: () => Promise.reject(new Error('nothing stands at the input')),
    now: () => new Date('2026-09-16T12:00:00Z'),
  })
  return { code, out, error }
}

let folder: string
const put = (n: number, name: string, kinds = ['course', 'facts', 'template']): string => {
  for (const kind of kinds) copyFileSync(example(n, kind), join(folder, `${name}${kind}.json`))
  return join(folder, `${name}course.json`)
}
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wickerframe-many-'))
})
afterEach(() => rmSync(folder, { recursive: true }))

describe('many courses', () => {
  it('are those of a folder and of the folders in it, each with what stands beside it', async () => {
    put(1, 'NAV-110-')
    mkdirSync(join(folder, 'safety'))
    put(2, 'safety/SAF-150-')
    mkdirSync(join(folder, 'osc'))
    put(3, 'osc/')
    writeFileSync(join(folder, 'recourse.json'), '{}')
    const { code, out } = await run(folder)
    expect(code).toBe(1)
    expect(out.split('\n').filter((line) => /^(not )?ready/.test(line))).toEqual([
      expect.stringMatching(/^ready .*NAV 110/),
      expect.stringMatching(/^ready .*OSC 240/),
      expect.stringMatching(/^not ready .*SAF 150.* 5 open musts/),
    ])
    expect(out).toContain('3 courses: 2 ready, 0 ready as far as seen, 1 not ready; 5 open musts')
  })
  it('take the template and facts that are given where none stand beside them, and are named once', async () => {
    const course = put(2, 'a-', ['course'])
    expect((await run(course)).out).toContain(
      'no template stands beside it; give one with --template',
    )
    const given = ['--template', example(2, 'template'), '--facts', example(2, 'facts')]
    const { out } = await run(...given, course, folder, course)
    expect(out).toContain('1 course: ')
  })
  it('are all told, though one of them cannot be checked, which the exit code says', async () => {
    put(1, 'a-')
    writeFileSync(put(1, 'b-'), '{ "schema": ')
    writeFileSync(put(1, 'c-', ['course', 'template']).replace('course', 'notes'), '{}')
    const { code, out } = await run(folder)
    expect(code).toBe(2)
    expect(out).toMatch(/not checked +.*b-course\.json.*expected a JSON document/)
    expect(out).toMatch(/not checked +.*c-course\.json.*give them with --facts/)
    expect(out).toContain('1 course: 1 ready')
    expect(out).toContain('2 courses could not be checked')
  })
  it.each([
    ['a folder that is not there', () => join(folder, 'nowhere'), 'no such file or folder'],
    ['a folder without courses', () => folder, 'found no course in this folder'],
  ])('%s is said, and nothing is checked', async (_, path, says) => {
    const { code, out, error } = await run(path())
    expect([code, out]).toEqual([2, ''])
    expect(error).toContain(says)
  })
  it('are compared with an earlier check: what is new and what is gone', async () => {
    const course = put(2, 'a-')
    const earlier = join(folder, 'earlier.json')
    writeFileSync(earlier, (await run(course, '--format', 'json')).out)
    expect((await run(course, '--since', earlier)).out).toContain('0 places new, 0 gone.')
    copyFileSync(example(2, 'facts'), join(folder, 'a-facts.json'))
    const read = JSON.parse((await run(course, '--format', 'json')).out)
    const [first] = read.courses[0].findings
    read.courses[0].findings = [
      { ...first, places: [{ ...first.places[0], fingerprint: 'gone', message: 'It was bare.' }] },
      ...read.courses[0].findings.slice(2),
    ]
    writeFileSync(earlier, JSON.stringify(read))
    const { out } = await run(course, '--since', earlier)
    expect(out).toContain('gone: It was bare.')
    expect(out).toMatch(/new: .*\[/)
    const sarif = JSON.parse((await run(course, '--since', earlier, '--format', 'sarif')).out)
    const states = sarif.runs[0].results.map(
      ({ baselineState }: { baselineState: string }) => baselineState,
    )
    expect([...new Set(states)].sort()).toEqual(['absent', 'new', 'unchanged'])
    writeFileSync(earlier, '{"schema":"another"}')
    expect((await run(course, '--since', earlier)).code).toBe(2)
  })
  it.each(['json', 'html', 'csv', 'sarif', 'earl'])(
    'are told as %s, the same every time',
    async (format) => {
      put(1, 'a-')
      put(2, 'b-')
      const first = await run(folder, '--format', format)
      expect(first.code).toBe(1)
      expect(first.out.length).toBeGreaterThan(1000)
      expect(await run(folder, '--format', format)).toEqual(first)
    },
  )
  it(
    'are checked in threads as here, in the order of their names',
    { timeout: 120_000 },
    async () => {
      for (let i = 10; i < 30; i += 1) put((i % 3) + 1, `${i}-`)
      writeFileSync(join(folder, '15-course.json'), '[')
      for (const format of ['text', 'sarif', 'json']) {
        const here = await run(folder, '--format', format)
        const bin = await promisify(execFile)(
          process.execPath,
          [
            join(root, 'bin/wickerframe'),
            'check',
            folder,
            '--jobs',
            '2',
            '--as-of',
            '2026-09-16',
            '--format',
            format,
          ],
          { maxBuffer: 2 ** 28 },
        ).catch((failed: { stdout: string; code: number }) => failed)
        const stamps = /"(made|endTimeUtc)": "[^"]+"/g
        expect(bin.stdout.replace(stamps, '')).toBe(here.out.replace(stamps, ''))
        expect('code' in bin && bin.code).toBe(2)
      }
    },
  )
})
