// Bundles a benchmark as the browser and the server get the code, without the helpers a loader adds, and runs it.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const root = fileURLToPath(new URL('..', import.meta.url))
const name = process.argv[2] ?? 'names'
const outfile = join(root, '.local/bench', `${name}.mjs`)
await build({ entryPoints: [join(root, 'bench', `${name}.ts`)], bundle: true, platform: 'node', format: 'esm', outfile, logLevel: 'error' })
process.exitCode = spawnSync(process.execPath, ['--expose-gc', outfile], { cwd: root, stdio: 'inherit' }).status ?? 1
