import { existsSync, mkdirSync, renameSync, writeFileSync } from 'node:fs'
import { basename, dirname, join, relative, sep } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'
import { recordsFolder } from './coverageRecords.ts'

const root = fileURLToPath(new URL('..', import.meta.url))
const made = new Map<string, Promise<string>>()

/** Programs that another one starts threads of: they stand beside it. */
const threadsOf: Readonly<Record<string, readonly string[]>> = {
  'server/src/main.ts': ['server/src/fileProgram.ts', 'server/src/reportProgram.ts'],
  'server/src/worker.ts': ['server/src/fileProgram.ts'],
  'cli/src/main.ts': ['cli/src/checkThread.ts'],
}

/**
 * One of our TypeScript programs as a single JavaScript file with our own packages inside: it starts in a third of the time
 * and runs without a loader. Packages of others are inside of those that start most often (`whole`); otherwise they stay where they are, but
 * for those that one of ours has to itself. Made once by each process that starts programs.
 * @param script such as `server/src/worker.ts`; the file stands in `dist` beside `src`, so that paths relative to it hold
 */
export const bundle = (script: string): Promise<string> => {
  let file = made.get(script)
  if (!file) {
    file = Promise.all([write(script), ...(threadsOf[script] ?? []).map(bundle)]).then(
      ([own]) => own,
    )
    made.set(script, file)
  }
  return file
}

/**
 * Whether one of our packages has a package of others to itself, in a version of its own: the one file we make stands
 * elsewhere and would not find it, or find another version.
 */
const standsBeside = (path: string, importer: string): boolean => {
  const [ours] = relative(root, importer).split(sep)
  const name = path.split('/').slice(0, path.startsWith('@') ? 2 : 1)
  return ours !== undefined && existsSync(join(root, ours, 'node_modules', ...name))
}

/** Programs with the packages of others inside as well: they start far more often than those change, and start faster. */
const whole: ReadonlySet<string> = new Set([
  'cli/src/main.ts',
  'cli/src/checkThread.ts',
  'platform/src/main.ts',
  'server/src/main.ts',
  'server/src/worker.ts',
])
/** Made for each kind of machine, and in no one file of ours. */
const isNative = (path: string): boolean => path.startsWith('@node-rs/')

const write = async (script: string): Promise<string> => {
  const outfile = join(root, dirname(dirname(script)), 'dist', `${basename(script, '.ts')}.mjs`)
  const { outputFiles } = await build({
    entryPoints: [join(root, script)],
    outfile,
    bundle: true,
    write: false,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'error',
    sourcemap: recordsFolder === undefined ? false : 'inline',
    // What a package in the old form asks for when it runs.
    ...(whole.has(script)
      ? {
          banner: {
            js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
          },
        }
      : {}),
    plugins: [
      {
        name: 'packages-of-others',
        setup: ({ onResolve }) =>
          onResolve({ filter: /^[^./]/ }, ({ path, kind, importer }) =>
            kind === 'entry-point' ||
            (whole.has(script) && !path.startsWith('node:') && !isNative(path)) ||
            path.startsWith('@wickerframe/') ||
            standsBeside(path, importer)
              ? undefined
              : { path, external: true },
          ),
      },
    ],
  })
  mkdirSync(dirname(outfile), { recursive: true })
  // Put in place at once: another process may be starting from it.
  const unfinished = `${outfile}.${process.pid}`
  writeFileSync(unfinished, outputFiles[0]?.contents ?? '')
  renameSync(unfinished, outfile)
  return outfile
}
