import { readdirSync, readFileSync } from 'node:fs'
import { join, relative, sep } from 'node:path'
import { fileURLToPath } from 'node:url'
import { mergeScriptCovs, type ScriptCov } from '@bcoe/v8-coverage'
import { convert } from 'ast-v8-to-istanbul'
import { parseAstAsync } from 'vite'

/*
 * Prints which share of the lines tests reach, by folder: what the tests that load our modules reached themselves, and what
 * was reached in the programs and pages that the others start.
 */

const root = fileURLToPath(new URL('..', import.meta.url))
const folder = join(root, '.local/coverage')

type Statements = Readonly<
  Record<
    string,
    {
      path: string
      statementMap: Readonly<Record<string, { start: { line: number } }>>
      s: Readonly<Record<string, number>>
    }
  >
>
/** Lines of a file: one is reached when a statement that begins on it was. */
type Lines = Map<number, boolean>
const linesIn = ({ statementMap, s }: Statements[string]): Lines => {
  const lines: Lines = new Map()
  for (const [id, { start }] of Object.entries(statementMap))
    lines.set(start.line, (lines.get(start.line) ?? false) || (s[id] ?? 0) > 0)
  return lines
}

/** The built file that a script was loaded from, from the root; null for what is not ours. */
const builtFile = (url: string): string | null => {
  const ours = `file://${root}`
  if (url.startsWith(ours)) {
    const path = url.slice(ours.length)
    return /^(?:server|platform|cli)\/dist\/[\w.-]+\.mjs$/.test(path) ? path : null
  }
  const [, asset] = /^http:\/\/127\.0\.0\.1:\d+\/(assets\/[\w./-]+\.js)$/.exec(url) ?? []
  return asset === undefined ? null : `web/dist/${asset}`
}

/** What programs and pages wrote down, for each built file all of it together. */
const recordedScripts = (records: string): Map<string, ScriptCov> => {
  const byFile = new Map<string, ScriptCov>()
  for (const name of readdirSync(records)) {
    const { result } = JSON.parse(readFileSync(join(records, name), 'utf8')) as {
      result: ScriptCov[]
    }
    for (const script of result) {
      const file = builtFile(script.url)
      if (file === null) continue
      const known = byFile.get(file)
      const own = { ...script, url: file }
      byFile.set(file, known ? (mergeScriptCovs([known, own]) ?? own) : own)
    }
  }
  return byFile
}

const sourceMapOf = (path: string, code: string) => {
  const [, inline] =
    /\/\/# sourceMappingURL=data:application\/json;base64,(\S+)\s*$/.exec(code) ?? []
  return JSON.parse(
    inline === undefined
      ? readFileSync(`${path}.map`, 'utf8')
      : Buffer.from(inline, 'base64').toString('utf8'),
  )
}

const files = new Map<string, Lines>(
  Object.values(
    JSON.parse(readFileSync(join(folder, 'coverage-final.json'), 'utf8')) as Statements,
  ).map((file) => [relative(root, file.path), linesIn(file)]),
)
for (const [file, script] of recordedScripts(join(folder, 'records'))) {
  const path = join(root, file)
  const code = readFileSync(path, 'utf8')
  const converted = (await convert({
    ast: parseAstAsync(code),
    code,
    wrapperLength: 0,
    coverage: { ...script, url: `file://${path}` },
    sourceMap: sourceMapOf(path, code),
  })) as unknown as Statements
  for (const source of Object.values(converted)) {
    const lines = files.get(relative(root, source.path))
    for (const [line, reached] of linesIn(source))
      if (reached && lines?.has(line)) lines.set(line, true)
  }
}

const folders = new Map<string, { lines: number; reached: number }>()
const count = (name: string, reached: boolean): void => {
  const sum = folders.get(name) ?? { lines: 0, reached: 0 }
  folders.set(name, { lines: sum.lines + 1, reached: sum.reached + Number(reached) })
}
for (const [file, lines] of files) {
  const [name = '', , ...path] = file.split(sep)
  for (const reached of lines.values()) {
    count(name, reached)
    if (path.length > 1) count(`${name}/${path[0]}`, reached)
    if (path.length > 2 && path[0] === 'screens') count(`${name}/${path[0]}/${path[1]}`, reached)
  }
}
for (const [name, { lines, reached }] of [...folders].sort(([a], [b]) => (a < b ? -1 : 1)))
  console.log(
    `${name.padEnd(28)} ${String(lines).padStart(6)} lines ${((100 * reached) / lines).toFixed(1).padStart(6)} %`,
  )
