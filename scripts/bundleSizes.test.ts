import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { root } from './processes.ts'

const dist = join(root, 'web/dist')
const assets = join(dist, 'assets')

/** A script with all that it imports at once, however far. */
const withImports = (file: string, seen = new Set<string>()): Set<string> => {
  if (seen.has(file)) return seen
  seen.add(file)
  const code = readFileSync(join(assets, file), 'utf8')
  for (const [, imported] of code.matchAll(/(?:from|import)\s*"\.\/([^"]+\.js)"/g))
    if (imported !== undefined) withImports(imported, seen)
  return seen
}
const kilobytes = (files: Iterable<string>): number =>
  [...files].reduce((sum, file) => sum + gzipSync(readFileSync(join(assets, file))).length, 0) /
  1000
const entry = (): string =>
  /<script[^>]+src="\/assets\/([^"]+)"/.exec(readFileSync(join(dist, 'index.html'), 'utf8'))?.[1] ??
  ''
const chunk = (name: string): string =>
  readdirSync(assets).find((file) => file.startsWith(`${name}-`) && file.endsWith('.js')) ?? ''
const screen = (name: string): Set<string> =>
  withImports(chunk(name), withImports(chunk('SignedIn'), withImports(entry())))

describe('the JavaScript that a page needs, compressed', () => {
  it('is at most 120 kB to sign in', () => {
    const needed = kilobytes(withImports(entry()))
    expect(needed).toBeGreaterThan(40)
    expect(needed).toBeLessThanOrEqual(120)
  })
  it('is at most 200 kB for Today', () => {
    const needed = kilobytes(screen('TodayScreen'))
    expect(needed).toBeGreaterThan(kilobytes(withImports(entry())))
    expect(needed).toBeLessThanOrEqual(200)
  })
  it.each([
    ['names.worker', 'NamesScreen'],
    ['proofread.worker', 'WorkbenchScreen'],
    ['model.worker', 'NewTemplateScreen'],
  ])('is not loaded twice for %s, and never starts the page in it', (worker, name) => {
    const needed = withImports(chunk(worker))
    const shared = [...withImports(chunk(name))].filter((file) => needed.has(file))
    expect(needed.has(entry())).toBe(false)
    expect(shared.length).toBeGreaterThan(0)
    expect(kilobytes([chunk(worker)])).toBeLessThanOrEqual(12)
  })
})
