import { spawn } from 'node:child_process'
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

/** Runs one step and says under its name what it said, once it is done. @returns its exit status */
const step = ([name, [command, ...args]]) =>
  new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
    const said = []
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => said.push(part))
    child.on('close', (code) => {
      console.log(`\n— ${name}`)
      process.stdout.write(Buffer.concat(said))
      if (code !== 0) console.error(`${name}: failed`)
      resolve(code ?? 1)
    })
  })
/** One step after the other, until one fails. @returns the exit status of the last that ran */
const lane = async (steps) => {
  for (const one of steps) {
    const status = await step(one)
    if (status !== 0) return status
  }
  return 0
}
const endOn = (status) => {
  if (status !== 0) process.exit(status)
}

// What is read only, side by side: each of them keeps one core at work.
const lanes = [
  [['types', ['npx', 'tsc', '-b']]],
  [
    ['lint', ['npx', 'oxlint', '--deny-warnings']],
    ['layout', ['npx', 'oxfmt', '--check']],
    ['generated files', [process.execPath, '--import', 'tsx', 'scripts/generate.ts', '--check']],
    ['build', ['npm', 'run', '--silent', 'build']],
  ],
]
for (const status of await Promise.all(lanes.map(lane))) endOn(status)

console.log('\n— tests')
const tests = spawn('npx', ['vitest', 'run', '--project', '!faults'], {
  cwd: root,
  stdio: ['ignore', 'inherit', 'inherit'],
})
tests.on('close', (code) => {
  if (code !== 0) console.error('tests: failed')
  process.exit(code ?? 1)
})
