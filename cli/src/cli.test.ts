import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { Ajv2020 } from 'ajv/dist/2020.js'
import addFormats from 'ajv-formats'
import { describe, expect, it } from 'vitest'
import { main } from './main.ts'

const docs = fileURLToPath(new URL('../../docs/schema', import.meta.url))
const example = (n: number, kind: string) => join(docs, 'examples', `${n}-${kind}.json`)
const documents = (n: number) => ['--template', example(n, 'template'), '--facts', example(n, 'facts'), '--course', example(n, 'course')]
let stdin: Uint8Array = new Uint8Array()
const run = async (...args: string[]) => {
  let out = ''
  let error = ''
  const code = await main(args, { out: (text) => (out += text), error: (text) => (error += text), input: () => Promise.resolve(stdin) })
  return { code, out, error }
}
const folder = mkdtempSync(join(tmpdir(), 'wickerframe-cli-'))
const written = (name: string, content: string | Buffer): string => {
  writeFileSync(join(folder, name), content)
  return join(folder, name)
}
const schema = (name: string): object => JSON.parse(readFileSync(join(docs, `${name}.schema.json`), 'utf8'))
const validates = (name: string, value: unknown): boolean => {
  const ajv = new Ajv2020({ strict: false })
  addFormats.default(ajv)
  return ajv.validate(schema(name), value)
}

describe('check', () => {
  it('exits 0 for a ready course, 1 for open musts', async () => {
    expect((await run('check', ...documents(1), '--as-of', '2026-09-16')).code).toBe(0)
    expect((await run('check', ...documents(2), '--as-of', '2026-09-16')).code).toBe(1)
  })
  it('exits 3 when no must is open but something could not be told', async () => {
    const course = JSON.parse(readFileSync(example(3, 'course'), 'utf8'))
    for (const module of course.modules) module.name = module.name.replace(/^(Unit \d).*/, '$1')
    const file = written('units.json', JSON.stringify(course))
    const { code, out } = await run('check', '--template', example(3, 'template'), '--facts', example(3, 'facts'), '--course', file, '--as-of', '2026-08-01')
    expect(out).toContain('Say which weeks each unit covers')
    expect([1, 3]).toContain(code)
    expect(code).toBe(out.includes('Open must') ? 1 : 3)
  })
  it('prints JSON that follows its published schema, the same every time', async () => {
    const first = await run('check', ...documents(2), '--as-of', '2026-09-16', '--format', 'json', '--pairs')
    expect(await run('check', ...documents(2), '--as-of', '2026-09-16', '--format', 'json', '--pairs')).toEqual(first)
    const result = JSON.parse(first.out)
    expect(validates('check', result)).toBe(true)
    expect(Object.keys(result)).toEqual(expect.arrayContaining(['outcomes', 'findings', 'pairs', 'counts']))
  })
  it('looks ahead: more is due on a later date', async () => {
    const open = async (asOf: string) => JSON.parse((await run('check', ...documents(2), '--as-of', asOf, '--format', 'json')).out).counts.notDueYet
    expect(await open('2026-08-01')).toBeGreaterThan(await open('2026-10-20'))
  })
})

describe('expand', () => {
  it('prints the expected course with its names and dates', async () => {
    const expected = JSON.parse((await run('expand', '--template', example(2, 'template'), '--facts', example(2, 'facts'))).out)
    expect(expected.course.name).toBe('SAF 150 Liferaft & Flare Drill · Autumn 2026')
    expect(expected.weeks).toHaveLength(8)
    expect(expected.parts[1]).toMatchObject({ name: 'Week 1 · Aug 31 – Sep 6 · The muster list', firstDay: '2026-08-31', opensAt: '2026-08-31T03:00:00Z' })
  })
})

describe('the examples', () => {
  it.each([1, 2, 3])('%i follow the published schemas', (n) => {
    for (const kind of ['template', 'facts', 'course']) expect(validates(kind, JSON.parse(readFileSync(example(n, kind), 'utf8')))).toBe(true)
  })
})

describe('unusable input', () => {
  const facts = (change: object) => written('facts.json', JSON.stringify({ ...JSON.parse(readFileSync(example(1, 'facts'), 'utf8')), ...change }))
  it.each([
    ['no such file', () => join(folder, 'nowhere.json'), /nowhere\.json: found no such file/],
    ['malformed JSON', () => written('bad.json', '{"schema": '), /found .*expected a JSON document/],
    ['another encoding', () => written('latin.json', Buffer.from([0x7b, 0x22, 0xe9, 0x22, 0x7d])), /not UTF-8/],
    ['nonsense', () => written('noise.json', Buffer.alloc(1_000_000, 'x')), /expected a JSON document/],
    ['an unknown field', () => facts({ colour: 'red' }), /at \/colour: found "red"; expected no such field/],
    ['a wrong type', () => facts({ weeks: 'sixteen' }), /at \/weeks: found "sixteen"; expected/],
    ['a time zone that is none', () => facts({ term: { ...JSON.parse(readFileSync(example(1, 'facts'), 'utf8')).term, timeZone: 'Mars/Base' } }), /at \/term\/timeZone: found "Mars\/Base"; expected an IANA time zone/],
    ['more weeks than the term has', () => facts({ weeks: 30 }), /at \/weeks: found 30; expected at most 16/],
    ['an array nested very deep', () => written('deep.json', '['.repeat(50_000) + ']'.repeat(50_000)), /expected/],
  ])('%s: exit 2, with the place and what was expected', async (_, file, message) => {
    const { code, error, out } = await run('check', '--template', example(1, 'template'), '--facts', file(), '--course', example(1, 'course'))
    expect(error).toMatch(message)
    expect([code, out]).toEqual([2, ''])
  })
  it.each([[[]], [['frob']], [['check']], [['check', '--frob']], [['check', ...documents(1), '--as-of', '2026-02-30']], [['check', ...documents(1), '--format', 'xml']]])('%j: exit 2', async (args) => {
    expect((await run(...args)).code).toBe(2)
  })
})
