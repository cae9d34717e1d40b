/**
 * Runs the deep tests: every property on all its cases (2,000 and more), and faults in whole rollouts. `--share`: only a
 * share of them, another one each day, as continuous integration does after `npm test`.
 */
import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { ensureMariadb, ensurePackages, orSay, root } from './bootstrap.mjs'

/** About as long each, those apart that are slow on all their cases by themselves: a project of tests, then files. */
const shares = JSON.parse(readFileSync(new URL('deepShares.json', import.meta.url), 'utf8'))
/** How many of them go together. */
const sharesADay = 2
const days = Math.floor(Date.now() / 86_400_000)
const today = days % Math.ceil(shares.length / sharesADay)

const chosen = process.argv.includes('--share')
  ? shares.filter((_, i) => Math.floor(i / sharesADay) === today)
  : [
      ['unit'],
      ['properties'],
      ['timings'],
      ['faults'],
      ['integration', 'e2e/attacks.integration.test.ts'],
    ]

orSay(() => {
  ensurePackages()
  ensureMariadb()
})
for (const [project, ...files] of chosen) {
  console.log(`\n— deep: ${[project, ...files].join(' ')}`)
  const { status } = spawnSync('npx', ['vitest', 'run', '--project', project, ...files], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, DEEP: '1' },
  })
  if (status !== 0) {
    console.error(`deep tests (${project}): failed`)
    process.exit(status ?? 1)
  }
}
