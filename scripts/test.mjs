import { spawnSync } from 'node:child_process'
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
const steps = [
  ['types', ['npx', 'tsc', '-b']],
  ['lint', ['npx', 'oxlint', '--deny-warnings']],
  ['layout', ['npx', 'prettier', '--check', '.', 'bin/wickerframe']],
  ['generated files', [process.execPath, '--import', 'tsx', 'scripts/generate.ts', '--check']],
  ['build', ['npm', 'run', '--silent', 'build']],
  ['tests', ['npx', 'vitest', 'run', '--project', '!faults']],
]
for (const [name, [command, ...args]] of steps) {
  console.log(`\n— ${name}`)
  const { status } = spawnSync(command, args, {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  if (status !== 0) {
    console.error(`${name}: failed`)
    process.exit(status ?? 1)
  }
}
