import { readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import { expect, it } from 'vitest'

const root = fileURLToPath(new URL('..', import.meta.url))
const shares = JSON.parse(
  readFileSync(new URL('deepShares.json', import.meta.url), 'utf8'),
) as string[][]
const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.name === 'node_modules' || entry.name.startsWith('.') || entry.name === 'dist'
      ? []
      : entry.isDirectory()
        ? filesIn(join(folder, entry.name))
        : [relative(root, join(folder, entry.name))],
  )

it('every property and every fault has its day, and every share has some', () => {
  const files = filesIn(root)
  const deep = files.filter((file) => /\.(?:property|faults)\.test\.ts$/.test(file))
  expect(deep.length).toBeGreaterThan(10)
  const paths = shares.flatMap(([, ...paths]) => paths)
  expect(deep.filter((file) => !paths.some((path) => file.startsWith(path)))).toEqual([])
  expect(paths.filter((path) => !files.some((file) => file.startsWith(path)))).toEqual([])
})
