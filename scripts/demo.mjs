import { spawn } from 'node:child_process'
import { ensureMariadb, ensurePackages, orSay, root } from './bootstrap.mjs'

orSay(() => {
  ensurePackages()
  ensureMariadb()
})
const child = spawn(
  process.execPath,
  ['--import', 'tsx', 'scripts/demo.ts', ...process.argv.slice(2)],
  { cwd: root, stdio: 'inherit' },
)
// Ctrl-C reaches the child as well; it stops what it started, and we wait for that.
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal))
child.on('exit', (code) => process.exit(code ?? 0))
