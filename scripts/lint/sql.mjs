/** SQL as the sources hold it: which literals are statements, and how a statement is laid out by clause. */

const width = 100
const statement = /^\s*(?:SELECT|INSERT|UPDATE|DELETE|REPLACE|WITH)\s/

/** Whether a string or template literal of the syntax tree is an SQL statement. */
export const isStatement = (node) =>
  node.type === 'TemplateLiteral'
    ? statement.test(node.quasis[0].value.raw)
    : typeof node.value === 'string' && statement.test(node.value)

const clauses = [
  'ON DUPLICATE KEY UPDATE',
  'INSERT IGNORE INTO',
  'FOR UPDATE SKIP LOCKED',
  'FOR UPDATE',
  'INSERT INTO',
  'REPLACE INTO',
  'DELETE FROM',
  'UNION ALL',
  'LEFT JOIN',
  'INNER JOIN',
  'CROSS JOIN',
  'STRAIGHT_JOIN',
  'GROUP BY',
  'ORDER BY',
  'SELECT',
  'UPDATE',
  'DELETE',
  'UNION',
  'VALUES',
  'HAVING',
  'WHERE',
  'LIMIT',
  'FROM',
  'JOIN',
  'WITH',
  'SET',
].map((words) => words.split(' '))

/** Tokens with whether white space stood before each; an interpolation and a quoted text are one token. */
const tokensOf = (text) => {
  const tokens = []
  let at = 0
  let spaced = false
  while (at < text.length) {
    const rest = text.slice(at)
    const [space] = /^\s+/.exec(rest) ?? []
    if (space) {
      spaced = true
      at += space.length
      continue
    }
    let token
    if (rest.startsWith('${')) {
      let depth = 0
      let end = at
      do {
        if (text[end] === '{') depth += 1
        if (text[end] === '}') depth -= 1
        end += 1
      } while ((depth > 0 || end < at + 2) && end < text.length)
      token = text.slice(at, end)
    } else
      [token] = /^'(?:[^'\\]|''|\\.)*'|^"(?:[^"\\]|""|\\.)*"|^\\`[^`]*\\`|^[\w@.]+|^./su.exec(rest)
    tokens.push({ token, spaced })
    spaced = false
    at += token.length
  }
  return tokens
}

/** Tokens as a tree: a group is what stands between parentheses. */
const treeOf = (tokens) => {
  const top = { items: [] }
  const open = [top]
  for (const { token, spaced } of tokens) {
    const inner = open.at(-1)
    if (token === '(') {
      const group = { items: [], spaced }
      inner.items.push(group)
      open.push(group)
    } else if (token === ')' && open.length > 1) open.pop()
    else inner.items.push({ token, spaced })
  }
  return top.items
}

const flat = (items) =>
  items
    .map((item, i) => {
      const before = i > 0 && item.spaced ? ' ' : ''
      return before + (item.items ? `(${flat(item.items)})` : item.token)
    })
    .join('')

/** A list of items cut before each one that `starts` accepts. */
const cutBefore = (items, starts) => {
  const pieces = []
  for (const [i, item] of items.entries()) {
    if (i === 0 || starts(i)) pieces.push([])
    pieces.at(-1).push(item)
  }
  return pieces
}

const clauseAt = (items, i) =>
  clauses.find((words) => words.every((word, k) => items[i + k]?.token === word))

const clausesOf = (items) => {
  const starts = new Set()
  let updating = false
  for (let i = 0; i < items.length;) {
    const words = clauseAt(items, i)
    // VALUES(column) in an update is a function, not a clause.
    if (words && !(updating && words[0] === 'VALUES')) {
      starts.add(i)
      updating = words[0] === 'ON'
      i += words.length
    } else i += 1
  }
  return cutBefore(items, (i) => starts.has(i))
}

/** Where a clause that is too long for a line may be broken: before AND and OR, or after commas. */
const piecesOf = (items) => {
  let between = false
  const conditions = cutBefore(items, (i) => {
    const { token } = items[i]
    if (token === 'BETWEEN') between = true
    if (token === 'AND' && between) {
      between = false
      return false
    }
    return (
      token === 'AND' || token === 'OR' || token === 'WHEN' || token === 'ELSE' || token === 'ON'
    )
  })
  return conditions.length > 1 ? conditions : cutBefore(items, (i) => items[i - 1].token === ',')
}

/** Lines of a piece, of which no line is longer than it must be. */
const linesOf = (items, indent) => {
  const line = flat(items)
  if (indent + line.length <= width) return [line]
  const pieces = piecesOf(items)
  if (pieces.length > 1) {
    const lines = []
    for (const [i, piece] of pieces.entries()) {
      const pad = i === 0 ? '' : '  '
      const [first, ...more] = linesOf(piece, indent + pad.length)
      const last = lines.at(-1)
      const fits = i > 0 && last !== undefined && indent + last.length + 1 + first.length <= width
      const comma = piece !== pieces[0] && flat(pieces[i - 1]).endsWith(',')
      if (fits && comma && more.length === 0) lines[lines.length - 1] = `${last} ${first}`
      else lines.push(pad + first)
      lines.push(...more.map((text) => pad + text))
    }
    return lines
  }
  // Nothing to break at but the longest group in it.
  const groups = items.filter((item) => item.items)
  const longest = groups.sort((a, b) => flat(b.items).length - flat(a.items).length)[0]
  if (!longest) return [line]
  const place = items.indexOf(longest)
  const before = flat(items.slice(0, place))
  const inner = byClause(longest.items, indent + 2).map((text) => `  ${text}`)
  const after = items.slice(place + 1)
  const gap = after[0]?.spaced ? ' ' : ''
  const [first, ...rest] = after.length > 0 ? linesOf(after, indent + 2) : ['']
  return [`${before}${longest.spaced && before ? ' ' : ''}(`, ...inner, `)${gap}${first}`, ...rest]
}

const byClause = (items, indent) => {
  if (clauseAt(items, 0) === undefined && clausesOf(items).length === 1)
    return linesOf(items, indent)
  return clausesOf(items).flatMap((clause) => linesOf(clause, indent))
}

/**
 * A statement laid out by clause: each clause of the statement begins a line, and one that is too long for its line goes on
 * indented, broken at commas, AND and OR, or at its parentheses.
 * @param text as it stands between back-ticks, interpolations included
 * @param indent the column at which the statement's lines begin
 */
export const layOut = (text, indent) => {
  const lines = byClause(treeOf(tokensOf(text.trim())), indent)
  return lines.join(`\n${' '.repeat(indent)}`)
}
