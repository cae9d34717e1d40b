import type { ListedRow } from './listedRow.ts'

/** A row with the rows that stand in it. */
export interface ListedTree {
  row: ListedRow
  inside: ListedTree[]
}

export const treesOf = (rows: readonly ListedRow[]): ListedTree[] => {
  const top: ListedTree[] = []
  const open: ListedTree[] = []
  for (const row of rows) {
    while (open.length > 0 && (open.at(-1)?.row.depth ?? 0) >= row.depth) open.pop()
    const tree = { row, inside: [] }
    const around = open.at(-1)?.inside ?? top
    around.push(tree)
    open.push(tree)
  }
  return top
}
export const rowsOf = (trees: readonly ListedTree[], depth = 0): ListedRow[] =>
  trees.flatMap(({ row, inside }) => [{ ...row, depth }, ...rowsOf(inside, depth + 1)])

const numbered =
  /^(.*?\b(week|unit|module|session|chapter|lesson|class|part|topic)\s+)(\d{1,2})\b(.*)$/isu
const separator = /^\s*[:.·|–—-]\s*/u

interface Numbered {
  before: string
  word: string
  number: number
  after: string
}
const numberIn = (name: string): Numbered | null => {
  const match = numbered.exec(name)
  return match
    ? {
        before: match[1] ?? '',
        word: (match[2] ?? '').toLowerCase(),
        number: Number(match[3]),
        after: match[4] ?? '',
      }
    : null
}

/** The field that a number of a repetition is written with, and how the repeat is said. */
const repeatOf = (word: string, from: number, to: number): { field: string; repeats: string } =>
  word === 'week' || word === 'unit'
    ? { field: word, repeats: `each ${word}, ${from} to ${to}` }
    : { field: 'number', repeats: `${to - from + 1} times` }

/** The same row in each repetition: its own number is the field. */
const withField = (name: string, number: number, field: string): string =>
  name.replace(new RegExp(`(?<![\\d{])0?${number}(?!\\d)`, 'u'), `{${field}}`)
const insideWith = (inside: readonly ListedTree[], number: number, field: string): ListedTree[] =>
  inside.map((tree) => ({
    row: { ...tree.row, name: withField(tree.row.name, number, field) },
    inside: insideWith(tree.inside, number, field),
  }))

/** How many of these trees, from the first on, are one that repeats: the same word with the next number, and the same inside. */
const runOf = (trees: readonly ListedTree[]): { length: number; made: ListedTree } | null => {
  const [first] = trees
  const begin = first ? numberIn(first.row.name) : null
  if (!first || !begin || first.row.repeats !== '') return null
  // Counted ones begin with one; weeks and units may begin anywhere.
  if (begin.number !== 1 && begin.word !== 'week' && begin.word !== 'unit') return null
  const { field } = repeatOf(begin.word, 1, 1)
  const shape = (tree: ListedTree, number: number): string =>
    JSON.stringify([
      tree.row.kind,
      { ...tree.row, name: '' },
      insideWith(tree.inside, number, field),
    ])
  const like = shape(first, begin.number)
  let length = 1
  const afters = new Set([begin.after])
  for (; length < trees.length; length++) {
    const next = trees[length]
    const read = next ? numberIn(next.row.name) : null
    if (
      !next ||
      !read ||
      read.before !== begin.before ||
      read.number !== begin.number + length ||
      shape(next, read.number) !== like ||
      separator.test(read.after) !== separator.test(begin.after)
    )
      break
    afters.add(read.after)
  }
  const isTopic = afters.size > 1
  if (length < 2 || (isTopic && !separator.test(begin.after))) return null
  const { repeats } = repeatOf(begin.word, begin.number, begin.number + length - 1)
  const after = isTopic ? `${separator.exec(begin.after)?.[0] ?? ' '}{topic}` : begin.after
  return {
    length,
    made: {
      row: { ...first.row, name: `${begin.before}{${field}}${after}`, repeats },
      inside: insideWith(first.inside, begin.number, field),
    },
  }
}

export interface Folded {
  trees: ListedTree[]
  /** How many rows became ones that repeat, and how many those are. */
  repetitions: number
  repeated: number
  /** In how many of them what they are about is a field now. */
  topics: number
}

/** Rows that are the same but for their number become one that repeats: `Week 1`, `Week 2`, … are one week. */
export const folded = (trees: readonly ListedTree[]): Folded => {
  const made: ListedTree[] = []
  let repetitions = 0
  let repeated = 0
  let topics = 0
  for (let i = 0; i < trees.length;) {
    const run = runOf(trees.slice(i))
    const tree = trees[i]
    if (run) {
      made.push(run.made)
      repetitions += run.length
      repeated += 1
      if (run.made.row.name.includes('{topic}')) topics += run.length
      i += run.length
    } else if (tree) {
      const inside = folded(tree.inside)
      made.push({ row: tree.row, inside: inside.trees })
      repetitions += inside.repetitions
      repeated += inside.repeated
      topics += inside.topics
      i += 1
    }
  }
  return { trees: made, repetitions, repeated, topics }
}
