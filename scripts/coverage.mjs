/** Runs all tests but the deep ones and prints which share of lines they reach, by folder, programs and pages included. */
import { spawnSync } from 'node:child_process'
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import {
  ensureChromium,
  ensureMariadb,
  ensureOpenssl,
  ensurePackages,
  orSay,
  root,
} from './bootstrap.mjs'

orSay(() => {
  ensurePackages()
  ensureMariadb()
  ensureChromium()
  ensureOpenssl()
})
const records = join(root, '.local/coverage/records')
rmSync(records, { recursive: true, force: true })
const run = (command, args) => {
  const { status } = spawnSync(command, args, {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, WICKERFRAME_COVERAGE: records },
  })
  return status ?? 1
}
const must = (command, args) => {
  const status = run(command, args)
  if (status !== 0) process.exit(status)
}
const tsx = ['--import', 'tsx']
// The page as it is written, so that each of its lines can be told.
must('npx', ['vite', 'build', 'web', '--minify', 'false', '--sourcemap'])
must(process.execPath, [...tsx, 'scripts/build.ts'])
const projects = ['unit', 'screens', 'properties', 'server', 'integration', 'browser']
const all = projects.flatMap((name) => ['--project', name])
// A test that fails is told at the end; what the others reached is told all the same.
const status = run('npx', [
  'vitest',
  'run',
  '--coverage',
  '--coverage.reportOnFailure',
  ...all,
  ...process.argv.slice(2),
])
must(process.execPath, [...tsx, 'scripts/coverageReport.ts'])
process.exit(status)
