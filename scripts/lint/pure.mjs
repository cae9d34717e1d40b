/** What ECMAScript itself brings and what gives the same answer everywhere and always. */
const pureGlobals = new Set(
  `undefined NaN Infinity isNaN isFinite parseInt parseFloat
  encodeURI encodeURIComponent decodeURI decodeURIComponent
  Object Array Map Set WeakMap WeakSet String Number Boolean Symbol BigInt RegExp JSON Promise Proxy Reflect Iterator
  Error TypeError RangeError SyntaxError
  ArrayBuffer DataView Uint8Array Uint16Array Uint32Array Int8Array Int16Array Int32Array Float32Array Float64Array
  structuredClone TextDecoder TextEncoder`.split(/\s+/),
)

/** Answers that depend on the time zone or the language of the machine. */
const machineMembers = new Set(
  `now getFullYear getMonth getDate getDay getHours getMinutes getTimezoneOffset
  setFullYear setMonth setDate setHours setMinutes
  toLocaleString toLocaleDateString toLocaleTimeString toLocaleUpperCase toLocaleLowerCase`.split(
    /\s+/,
  ),
)

const memberName = (node) =>
  node?.type !== 'MemberExpression'
    ? null
    : !node.computed
      ? node.property.name
      : typeof node.property.value === 'string'
        ? node.property.value
        : null

/** Whether an identifier stands where a type is named, and so for nothing at run time. */
const isType = ({ parent }) =>
  /^TS(?:TypeReference|QualifiedName|InterfaceHeritage|ClassImplements|TypeQuery)$/.test(
    parent.type,
  )

/** `Math` with one of its pure functions; `Date.UTC` and `Date.parse`; a date made of one value. Nothing else of the two. */
const isPureUse = (name, node) => {
  const { parent } = node
  const isObject = parent.type === 'MemberExpression' && parent.object === node
  if (name === 'Math')
    return isObject && memberName(parent) !== null && memberName(parent) !== 'random'
  if (isObject) return ['UTC', 'parse'].includes(memberName(parent))
  return (
    parent.type === 'NewExpression' &&
    parent.callee === node &&
    parent.arguments.length === 1 &&
    parent.arguments[0].type !== 'SpreadElement'
  )
}

/**
 * No clock, no chance, no machine: a global is one of ECMAScript's pure ones, `Math` without its random source, and a date is
 * made only of what is given. Option `packages`: of these packages only the names listed.
 */
export const pure = {
  meta: {
    type: 'problem',
    schema: [{ type: 'object' }],
    messages: {
      global: '“{{name}}” is not pure: what is needed of the world comes in as an argument.',
      use: '“{{name}}” in this way asks the machine for the time, its zone or chance: it comes in as an argument.',
      member: '“{{name}}” depends on the clock, time zone or language of the machine.',
      named: 'Of “{{from}}” only {{names}} may be used here; the rest knows the clock.',
      meta: 'import.meta tells of the machine.',
    },
  },
  create(context) {
    const packages = context.options[0]?.packages ?? {}
    return {
      'Program:exit'() {
        const { globalScope } = context.sourceCode.scopeManager
        // What the configuration calls a global stands as a variable that nobody defined; the rest goes through.
        const references = [
          ...globalScope.through,
          ...globalScope.variables
            .filter((variable) => variable.defs.length === 0)
            .flatMap((variable) => variable.references),
        ]
        for (const { identifier } of new Set(references)) {
          const { name } = identifier
          if (pureGlobals.has(name) || isType(identifier)) continue
          const known = name === 'Math' || name === 'Date'
          if (known && isPureUse(name, identifier)) continue
          context.report({ node: identifier, messageId: known ? 'use' : 'global', data: { name } })
        }
      },
      MemberExpression(node) {
        const name = memberName(node)
        if (machineMembers.has(name)) context.report({ node, messageId: 'member', data: { name } })
      },
      MetaProperty(node) {
        if (node.meta.name === 'import') context.report({ node, messageId: 'meta' })
      },
      ImportDeclaration(node) {
        const from = node.source.value
        const allowed = packages[from]
        if (!allowed) return
        for (const part of node.specifiers)
          if (part.type !== 'ImportSpecifier' || !allowed.includes(part.imported.name))
            context.report({
              node: part,
              messageId: 'named',
              data: { from, names: allowed.join(', ') },
            })
      },
    }
  },
}
