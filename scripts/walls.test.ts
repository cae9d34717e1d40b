import { execFile } from 'node:child_process'
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
  appendFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'

/*
 * Every check that `npm test` makes of the sources turns red on a planted fault. The faults are planted together in a copy of
 * the tree, and each tool is run once as `npm test` runs it; the type check of the packages that have one, each by itself.
 */

const root = fileURLToPath(new URL('..', import.meta.url))
// Outside the tree: what is ignored in it would be passed over in the copy as well.
const copy = mkdtempSync(join(tmpdir(), 'wickerframe-walls-'))

interface Fault {
  what: string
  file: string
  text: string
  /** What the tool that finds it calls it. */
  says: RegExp
}

const typeFaults: Fault[] = [
  {
    what: 'the core imports the server by relative path',
    file: 'core/src/naming/plantedRelative.ts',
    text: "export { houseTextAddress } from '../../../server/src/library/publicAddresses.ts'\n",
    says: /TS(?:6307|6059)/,
  },
  {
    what: 'the web app takes a type of the server by a type import',
    file: 'web/src/plantedImportType.ts',
    text: "export type Planted = import('../../server/src/queue/outcome.ts').TaskOutcome\n",
    says: /TS(?:6307|6059)/,
  },
  {
    what: 'the server reaches into the practice platform by its name',
    file: 'server/src/plantedPlatform.ts',
    text: "export { rewriteHtml } from '@wickerframe/platform/rewriteHtml'\n",
    says: /TS2307/,
  },
  {
    what: 'the server reaches into the practice platform by relative path',
    file: 'server/src/plantedPlatformPath.ts',
    text: "export { rewriteHtml } from '../../platform/src/rewriteHtml.ts'\n",
    says: /TS(?:6307|6059)/,
  },
  {
    what: 'another package’s file is imported past its face',
    file: 'interchange/src/plantedDeep.ts',
    text: "export { formatOf } from '@wickerframe/core/src/naming/index.ts'\n",
    says: /TS2307/,
  },
  {
    what: 'the core speaks to the document',
    file: 'core/src/naming/plantedDocument.ts',
    text: 'export const planted = () => document.title\n',
    says: /TS(?:2584|2304)/,
  },
  {
    what: 'the core speaks to the process',
    file: 'core/src/naming/plantedProcess.ts',
    text: 'export const planted = () => process.env\n',
    says: /TS(?:2591|2580|2304)/,
  },
  {
    what: 'the core reads a file',
    file: 'core/src/naming/plantedFiles.ts',
    text: "export { readFileSync } from 'node:fs'\n",
    says: /TS(?:2307|2591)/,
  },
  {
    what: 'the core waits',
    file: 'core/src/naming/plantedTimer.ts',
    text: 'export const planted = () => setTimeout(() => undefined, 1)\n',
    says: /TS(?:2304|2552)/,
  },
  {
    what: 'the server speaks to the document',
    file: 'server/src/plantedDocument.ts',
    text: 'export const planted = () => document.title\n',
    says: /TS(?:2584|2304)/,
  },
  {
    what: 'a type is wrong',
    file: 'web/src/plantedWrong.ts',
    text: "export const planted: number = 'three'\n",
    says: /TS2322/,
  },
]

const packageOf = (file: string): string => file.slice(0, file.indexOf('/'))
const withTypeFaults = [...new Set(typeFaults.map(({ file }) => packageOf(file)))]

const walls = /package-walls/
const impure = /wickerframe\(pure\)/
const inCore = (name: string) => `core/src/calendar/planted${name}.ts`

const lintFaults: Fault[] = [
  {
    what: 'the core imports a type of the server by its name',
    file: 'core/src/naming/plantedType.ts',
    text: "export type { Settings } from '@wickerframe/server/start/settings'\n",
    says: walls,
  },
  {
    what: 'a test of the core imports the server',
    file: 'core/src/naming/planted.test.ts',
    text: "export type { Settings } from '@wickerframe/server/start/settings'\n",
    says: walls,
  },
  {
    what: 'a relative import leaves its package',
    file: 'server/src/plantedLeaves.ts',
    text: "export { formatOf } from '../../core/src/naming/index.ts'\n",
    says: walls,
  },
  {
    what: 'a type-only import leaves its package',
    file: 'web/src/plantedLeaves.ts',
    text: "import type { Facts } from '../../core/src/course/facts.ts'\nexport type Planted = Facts\n",
    says: walls,
  },
  {
    what: 'an import type leaves its package',
    file: 'web/src/plantedLeavesByType.ts',
    text: "export type Planted = import('../../core/src/course/facts.ts').Facts\n",
    says: walls,
  },
  {
    what: 'an import at run time leaves its package',
    file: 'web/src/plantedLeavesLater.ts',
    text: "export const planted = () => import('../../server/src/library/publicAddresses.ts')\n",
    says: walls,
  },
  {
    what: 'what is imported at run time is worked out',
    file: 'web/src/plantedComputed.ts',
    text: 'export const planted = (name: string) => import(name)\n',
    says: walls,
  },
  {
    what: 'a require leaves its package',
    file: 'server/src/plantedRequire.ts',
    text: "import { createRequire } from 'node:module'\nconst require = createRequire(import.meta.url)\nexport const planted: unknown = require('../../platform/src/courses.ts')\n",
    says: walls,
  },
  {
    what: 'a worker’s script lies in another package',
    file: 'web/src/plantedWorker.ts',
    text: "export const planted = () => new URL('../../server/src/worker.ts', import.meta.url)\n",
    says: walls,
  },
  {
    what: 'a file of the core imports its own package by name',
    file: inCore('Itself'),
    text: "export { formatOf } from '@wickerframe/core'\n",
    says: walls,
  },
  {
    what: 'the core imports a database client by a sub-path, as a type',
    file: inCore('Database'),
    text: "export type { Pool } from 'mysql2/promise'\n",
    says: walls,
  },
  {
    what: 'the core imports a sub-path of Node.js',
    file: inCore('NodePath'),
    text: "export type { FileHandle } from 'node:fs/promises'\n",
    says: walls,
  },
  {
    what: 'the core imports Node.js without its prefix',
    file: inCore('NodeBare'),
    text: "export { join } from 'path/posix'\n",
    says: walls,
  },
  {
    what: 'the web app imports React’s neighbour that it does not have',
    file: 'web/src/plantedExpress.ts',
    text: "export type { Request } from 'express'\n",
    says: walls,
  },
  {
    what: 'a reference pulls Node.js into the core',
    file: inCore('Reference'),
    text: '/// <reference types="node" />\nexport const planted = 1\n',
    says: walls,
  },
  {
    what: 'new Date()',
    file: inCore('Now'),
    text: 'export const planted = () => new Date()\n',
    says: impure,
  },
  {
    what: 'Date by another name',
    file: inCore('DateAlias'),
    text: 'const Day = Date\nexport const planted = () => new Day()\n',
    says: impure,
  },
  {
    what: 'Date.now, by brackets too',
    file: inCore('DateNow'),
    text: "export const planted = () => Date['now']()\n",
    says: impure,
  },
  {
    what: 'a date in the machine’s own zone',
    file: inCore('LocalDate'),
    text: 'export const planted = () => new Date(2026, 8, 16)\n',
    says: impure,
  },
  {
    what: 'hours of the machine’s own zone',
    file: inCore('LocalHours'),
    text: 'export const planted = (at: number) => new Date(at).getHours()\n',
    says: impure,
  },
  {
    what: 'performance',
    file: inCore('Performance'),
    text: 'export const planted = () => performance.now()\n',
    says: impure,
  },
  {
    what: 'crypto',
    file: inCore('Crypto'),
    text: 'export const planted = () => crypto.randomUUID()\n',
    says: impure,
  },
  {
    what: 'globalThis',
    file: inCore('Global'),
    text: 'export const planted = () => globalThis.structuredClone(1)\n',
    says: impure,
  },
  {
    what: 'Math.random, taken out of Math',
    file: inCore('Random'),
    text: 'const { random } = Math\nexport const planted = () => random()\n',
    says: impure,
  },
  {
    what: 'Math.random',
    file: inCore('RandomPlain'),
    text: 'export const planted = () => Math.random()\n',
    says: impure,
  },
  {
    what: 'a clock of a library',
    file: inCore('LibraryClock'),
    text: "import { DateTime } from 'luxon'\nexport const planted = DateTime\n",
    says: impure,
  },
  {
    what: 'the language of the machine',
    file: inCore('Language'),
    text: 'export const planted = (count: number) => count.toLocaleString()\n',
    says: impure,
  },
  {
    what: 'SQL on one line',
    file: 'server/src/plantedSql.ts',
    text: "export const planted = 'SELECT id FROM courses WHERE code = ?'\n",
    says: /sql-by-clause/,
  },
  {
    what: 'two statements in one function',
    file: 'server/src/plantedStatements.ts',
    text: "export const planted = (first: boolean) => (first ? 'SELECT 1 AS one' : 'SELECT 2 AS two')\n",
    says: /one-statement/,
  },
  {
    what: 'SQL in a route',
    file: 'server/src/terms/plantedRoutes.ts',
    text: 'export const planted = `SELECT code\n  FROM terms`\n',
    says: /sql-in-repositories/,
  },
  {
    what: 'a circle of imports that is made of types',
    file: 'core/src/calendar/plantedCircle.ts',
    text: "import type { Other } from './plantedCircleOther.ts'\nexport interface Planted {\n  other: Other | null\n}\n",
    says: /no-cycle/,
  },
  {
    what: 'the other half of the circle',
    file: 'core/src/calendar/plantedCircleOther.ts',
    text: "import type { Planted } from './plantedCircle.ts'\nexport interface Other {\n  planted: Planted | null\n}\n",
    says: /no-cycle/,
  },
  {
    what: 'any',
    file: 'server/src/plantedAny.ts',
    text: 'export const planted = (value: any): unknown => value\n',
    says: /no-explicit-any/,
  },
  {
    what: 'a warning',
    file: 'web/src/plantedWarning.ts',
    text: 'export const planted = (worker: Worker) => {\n  worker.onmessage = () => undefined\n}\n',
    says: /prefer-add-event-listener/,
  },
]

const unformatted: Fault = {
  what: 'a file as nobody formatted it',
  file: 'cli/src/plantedLayout.ts',
  text: 'export const planted = {a:1,\n    b :2};\n',
  says: /plantedLayout/,
}

const stale: Fault = {
  what: 'a generated page that somebody edited',
  file: 'docs/rules/module-missing.md',
  text: 'planted\n',
  says: /differ/,
}

// What the type check knows of the tree comes along: only what is planted is new to it.
const notCopied = new Set(['node_modules', '.local', '.git', 'dist', 'screenshots'])

const copyTree = () => {
  for (const entry of readdirSync(root))
    if (!notCopied.has(entry))
      cpSync(join(root, entry), join(copy, entry), {
        recursive: true,
        preserveTimestamps: true,
        filter: (path) => !notCopied.has(path.slice(path.lastIndexOf('/') + 1)),
      })
  // Packages of others as they are installed; our own are those of the copy.
  const installed = join(root, 'node_modules')
  mkdirSync(join(copy, 'node_modules/@wickerframe'), { recursive: true })
  for (const entry of readdirSync(installed))
    if (entry !== '@wickerframe')
      symlinkSync(join(installed, entry), join(copy, 'node_modules', entry))
  for (const entry of readdirSync(join(installed, '@wickerframe'))) {
    symlinkSync(join('../..', entry), join(copy, 'node_modules/@wickerframe', entry))
    // What one of ours has in another version than the others.
    const own = join(root, entry, 'node_modules')
    if (existsSync(own)) symlinkSync(own, join(copy, entry, 'node_modules'))
  }
}

const plant = ({ file, text }: Fault) => {
  const path = join(copy, file)
  mkdirSync(dirname(path), { recursive: true })
  writeFileSync(path, text)
}

const run = (command: string, args: string[]) =>
  new Promise<{ code: number; said: string }>((resolve) => {
    execFile(
      join(root, 'node_modules/.bin', command),
      args,
      { cwd: copy, maxBuffer: 64 * 1024 * 1024, env: { ...process.env, NO_COLOR: '1' } },
      (cause, stdout, stderr) =>
        resolve({ code: cause ? Number(cause.code ?? 1) : 0, said: stdout + stderr }),
    )
  })

/** What a tool says of a file: each line that is not indented begins something new. */
const saidOf = ({ said }: { said: string }, file: string) =>
  said
    .split(/\n(?!\s)/)
    .filter((remark) => remark.includes(file))
    .join('\n')

const types: { code: number; said: string }[] = []
const lint = { code: 0, said: '' }
const format = { code: 0, said: '' }
const generated = { code: 0, said: '' }

beforeAll(async () => {
  copyTree()
  appendFileSync(join(copy, stale.file), stale.text)
  for (const fault of lintFaults) plant(fault)
  const [said, found] = await Promise.all([
    run('tsx', ['scripts/generate.ts', '--check']),
    run('oxlint', ['--deny-warnings', '-f', 'unix']),
  ])
  Object.assign(generated, said)
  Object.assign(lint, found)
  for (const { file } of lintFaults) rmSync(join(copy, file))
  for (const fault of [...typeFaults, unformatted]) plant(fault)
  const [layout, ...checked] = await Promise.all([
    run('oxfmt', ['--check']),
    ...withTypeFaults.map((name) =>
      run('tsc', ['-p', `${name}/tsconfig.json`, '--noEmit', '--pretty', 'false']),
    ),
  ])
  Object.assign(format, layout)
  types.push(...checked)
}, 300_000)
afterAll(() => rmSync(copy, { recursive: true, force: true }))

describe('the type check turns red', () => {
  it.each(typeFaults)('when $what', ({ file, says }) => {
    const found = types[withTypeFaults.indexOf(packageOf(file))]
    expect(saidOf(found ?? { said: '' }, file)).toMatch(says)
    expect(found?.code).not.toBe(0)
  })
  it('for what was planted, and for nothing else', () => {
    // Files that a forbidden import draws into a project are told of, too.
    const planted = new Set([
      ...typeFaults.map((fault) => fault.file),
      'server/src/library/publicAddresses.ts',
      'server/src/queue/outcome.ts',
      'platform/src/rewriteHtml.ts',
    ])
    const told = types
      .flatMap(({ said }) => said.split('\n'))
      .flatMap((line) => /^(\S+?)\(.*error TS/.exec(line)?.[1] ?? [])
    expect(told.length).toBeGreaterThan(0)
    expect(told.filter((file) => !planted.has(file))).toEqual([])
  })
})

describe('lint turns red', () => {
  it.each(lintFaults)('on $what', ({ file, says }) => {
    expect(saidOf(lint, file)).toMatch(says)
    expect(lint.code).not.toBe(0)
  })
  it('for what was planted, and for nothing else', () => {
    const planted = new Set(lintFaults.map((fault) => fault.file))
    const told = lint.said.split('\n').flatMap((line) => /^(\S+?):\d+:\d+:/.exec(line)?.[1] ?? [])
    expect(told.length).toBeGreaterThan(0)
    expect(told.filter((file) => !planted.has(file))).toEqual([])
  })
})

describe('the check of the layout turns red', () => {
  it(`on ${unformatted.what}`, () => {
    expect(format.said).toMatch(unformatted.says)
    expect(format.code).not.toBe(0)
  })
})

describe('the check of what is generated turns red', () => {
  it(`on ${stale.what}`, () => {
    expect(generated.said).toMatch(stale.says)
    expect(generated.said).toContain(stale.file)
    expect(generated.code).not.toBe(0)
  })
})

const sources = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory()
      ? sources(join(folder, entry.name))
      : entry.name.endsWith('.d.ts')
        ? [join(folder, entry.name)]
        : [],
  )

describe('packages', () => {
  const packages = readdirSync(root).filter((entry) =>
    existsSync(join(root, entry, 'tsconfig.json')),
  )
  const read = (...path: string[]) =>
    JSON.parse(readFileSync(join(root, ...path), 'utf8')) as {
      dependencies?: Record<string, string>
      references?: { path: string }[]
    }

  it.each(packages)(
    '%s refers to the packages that its package.json names, and no others',
    (name) => {
      const { dependencies = {} } = read(name, 'package.json')
      const { references = [] } = read(name, 'tsconfig.json')
      expect(references.map(({ path }) => path.slice('../'.length)).sort()).toEqual(
        Object.keys(dependencies)
          .filter((dependency) => dependency.startsWith('@wickerframe/'))
          .map((dependency) => dependency.slice('@wickerframe/'.length))
          .sort(),
      )
    },
  )

  it('hand on whole types: none is cut off, which would make it any without a word', () => {
    const declarations = packages.flatMap((name) =>
      existsSync(join(root, name, '.types')) ? sources(join(root, name, '.types')) : [],
    )
    expect(declarations.length).toBeGreaterThan(300)
    expect(
      declarations
        .filter((file) => readFileSync(file, 'utf8').includes('elided'))
        .map((file) => relative(root, file)),
    ).toEqual([])
  })
})
