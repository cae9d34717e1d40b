import { readFileSync } from 'node:fs'
import { isBuiltin } from 'node:module'
import { dirname, relative, resolve, sep } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('../..', import.meta.url))
const read = (...path) => JSON.parse(readFileSync(resolve(root, ...path), 'utf8'))
const { workspaces, devDependencies } = read('package.json')
const readOnce = new Map()

/** What one package may import: taken from its package.json and its TypeScript project, and from nowhere else. */
const wallsOf = (name) => {
  let walls = readOnce.get(name)
  if (!walls) {
    const { dependencies = {}, devDependencies: own = {} } = read(name, 'package.json')
    const { compilerOptions = {}, include = [] } = read(name, 'tsconfig.json')
    walls = {
      packages: new Set(Object.keys(dependencies)),
      forTests: { ...devDependencies, ...own },
      node: (compilerOptions.types ?? []).includes('node'),
      // Packages without `src` are tools of development altogether: scripts, benchmarks, browser tests.
      tool: !include.includes('src'),
    }
    readOnce.set(name, walls)
  }
  return walls
}

const packageName = (specifier) =>
  specifier
    .split('/')
    .slice(0, specifier.startsWith('@') ? 2 : 1)
    .join('/')

const within = (folder, file) => {
  const path = relative(folder, file)
  return path !== '..' && !path.startsWith(`..${sep}`)
}

const text = (node) => (typeof node?.value === 'string' ? node.value : null)

const importingCalls = new Set([
  'require',
  'require.resolve',
  'import.meta.resolve',
  'vi.mock',
  'vi.doMock',
  'vi.importActual',
])

/**
 * A file imports files of its own package by relative path, other packages by the names its package.json has, and Node.js
 * only where its TypeScript project knows Node.js; tests and tools also what the devDependencies have, the root's and its own.
 */
export const packageWalls = {
  meta: {
    type: 'problem',
    messages: {
      leaves:
        '“{{specifier}}” leaves the package {{own}}: another package is imported by its name.',
      itself: '“{{specifier}}” is this package: import its files by relative path.',
      unknown: '{{own}} does not depend on “{{name}}”: its package.json does not name it.',
      node: '{{own}} knows nothing of Node.js: “{{specifier}}” is refused.',
      computed: 'What is imported stands there as a string, so that walls can be checked.',
    },
  },
  create(context) {
    const file = context.filename
    const own = relative(root, file).split(sep)[0]
    if (!workspaces.includes(own)) return {}
    const walls = wallsOf(own)
    const tool = walls.tool || /\.(?:test|testing)\.tsx?$|\.config\.ts$/.test(file)

    const look = (node, specifier) => {
      const report = (messageId, data = {}) =>
        context.report({ node, messageId, data: { own, specifier, ...data } })
      if (/^\.{0,2}\//.test(specifier) || /^\.{1,2}$/.test(specifier)) {
        if (!within(resolve(root, own), resolve(dirname(file), specifier))) report('leaves')
        return
      }
      if (specifier.startsWith('node:') || isBuiltin(specifier)) {
        if (!walls.node && !tool) report('node')
        return
      }
      const name = packageName(specifier)
      if (name === `@wickerframe/${own}`) report('itself')
      // A standard may be there as types alone: a test holds what we write against them.
      else if (
        !walls.packages.has(name) &&
        !(tool && (name in walls.forTests || `@types/${name}` in walls.forTests))
      )
        report('unknown', { name })
    }
    const source = (node) => {
      if (node.source) look(node.source, node.source.value)
    }
    return {
      Program() {
        for (const comment of context.sourceCode.getAllComments()) {
          const [, kind, specifier] =
            /^\/\s*<reference\s+(path|types)\s*=\s*["']([^"']+)/.exec(comment.value) ?? []
          if (kind === 'path')
            look(comment, specifier.startsWith('.') ? specifier : `./${specifier}`)
          if (kind === 'types') look(comment, specifier === 'node' ? 'node:module' : specifier)
        }
      },
      ImportDeclaration: source,
      ExportNamedDeclaration: source,
      ExportAllDeclaration: source,
      ImportExpression(node) {
        const specifier = text(node.source)
        if (specifier !== null) look(node.source, specifier)
        else if (!tool) context.report({ node, messageId: 'computed' })
      },
      TSImportType(node) {
        const literal = node.source ?? node.argument?.literal ?? node.argument
        const specifier = text(literal)
        if (specifier !== null) look(literal, specifier)
      },
      TSExternalModuleReference(node) {
        look(node.expression, node.expression.value)
      },
      TSModuleDeclaration(node) {
        const specifier = text(node.id)
        if (specifier !== null && specifier.startsWith('.')) look(node.id, specifier)
      },
      CallExpression(node) {
        const [first] = node.arguments
        const specifier = text(first)
        if (specifier !== null && importingCalls.has(context.sourceCode.getText(node.callee)))
          look(first, specifier)
      },
      // A worker's script, or a file that is read: it may lie anywhere but in the sources of another package.
      NewExpression(node) {
        const [first, base] = node.arguments
        const specifier = text(first)
        if (tool || specifier === null || node.callee.name !== 'URL' || base === undefined) return
        if (context.sourceCode.getText(base) !== 'import.meta.url') return
        const [into, folder] = relative(root, resolve(dirname(file), specifier)).split(sep)
        if (into !== own && workspaces.includes(into) && folder === 'src')
          context.report({ node: first, messageId: 'leaves', data: { own, specifier } })
      },
    }
  },
}
