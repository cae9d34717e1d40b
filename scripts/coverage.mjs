/** Runs the tests that need no whole program and prints which share of lines they reach, by folder. */
import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join, relative, sep } from 'node:path'
import { ensureMariadb, ensurePackages, orSay, root } from './bootstrap.mjs'

orSay(() => {
  ensurePackages()
  ensureMariadb()
})
const projects = ['unit', 'screens', 'properties', 'server'].flatMap((name) => ['--project', name])
const { status } = spawnSync('npx', ['vitest', 'run', '--coverage', ...projects], {
  cwd: root,
  stdio: ['ignore', 'inherit', 'inherit'],
})
if (status !== 0) process.exit(status ?? 1)

/** Lines of one file: a line is reached when a statement that begins on it was. */
const linesOf = ({ statementMap, s }) => {
  const lines = new Map()
  for (const [id, { start }] of Object.entries(statementMap))
    lines.set(start.line, (lines.get(start.line) ?? false) || s[id] > 0)
  return lines
}
const folders = new Map()
const count = (folder, reached) => {
  const sum = folders.get(folder) ?? { lines: 0, reached: 0 }
  folders.set(folder, { lines: sum.lines + 1, reached: sum.reached + Number(reached) })
}
const found = JSON.parse(readFileSync(join(root, '.local/coverage/coverage-final.json'), 'utf8'))
for (const [file, coverage] of Object.entries(found)) {
  const [name, , ...path] = relative(root, file).split(sep)
  for (const reached of linesOf(coverage).values()) {
    count(name, reached)
    if (path.length > 1) count(`${name}/${path[0]}`, reached)
  }
}
for (const [folder, { lines, reached }] of [...folders].sort(([a], [b]) => (a < b ? -1 : 1)))
  console.log(
    `${folder.padEnd(24)} ${String(lines).padStart(6)} lines ${((100 * reached) / lines).toFixed(1).padStart(6)} %`,
  )
