// Bundles a benchmark as the browser and the server get the code, without the helpers a loader adds, and runs it.
import { spawnSync } from 'node:child_process'
import { existsSync, symlinkSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const root = fileURLToPath(new URL('..', import.meta.url))
const name = process.argv[2] ?? 'names'
const outfile = join(root, '.local/bench', `${name}.mjs`)
await build({
  entryPoints: [join(root, 'bench', `${name}.ts`)],
  bundle: true,
  platform: 'node',
  format: 'esm',
  outfile,
  logLevel: 'error',
})
// The demo's templates are files beside its sources.
if (!existsSync(join(root, '.local/templates')))
  symlinkSync(join(root, 'demo/templates'), join(root, '.local/templates'))
process.exitCode =
  spawnSync(process.execPath, ['--expose-gc', outfile, ...process.argv.slice(3)], {
    cwd: root,
    stdio: 'inherit',
  }).status ?? 1
