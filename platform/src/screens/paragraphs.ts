import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5'
import { wordDifference } from '@wickerframe/core'

type Node = DefaultTreeAdapterTypes.ChildNode
type Element = DefaultTreeAdapterTypes.Element

/** A stretch of source between two tags, or a line break, and what a reader sees of it. */
interface Run {
  shown: string
  from: number
  to: number
}
/** An element in the paragraph that is there for its words: a link, an emphasis. */
interface Wrapping {
  from: number
  to: number
  runs: readonly Run[]
}

/** A paragraph of a page: what it says, spaces collapsed and line breaks kept, and where its inner HTML stands in the source. */
export interface Paragraph {
  text: string
  from: number
  to: number
  runs: readonly Run[]
  wrappings: readonly Wrapping[]
}

const own = new Set(['p', 'li', 'h1', 'h2', 'h3', 'h4', 'td', 'th'])
const wrapping = new Set(['a', 'b', 'strong', 'i', 'em', 'u', 's', 'span', 'mark', 'code', 'small'])

/** A text as a form sends it back: line ends are `\n`, other stretches of space are one. */
const collapsed = (text: string): string =>
  text
    .replace(/\r\n?/g, '\n')
    .replace(/[^\S\n]+/g, ' ')
    .replace(/ ?\n ?/g, '\n')

const runsOf = (nodes: readonly Node[]): Run[] =>
  nodes.flatMap((node): Run[] => {
    const at = node.sourceCodeLocation
    if (node.nodeName === '#text' && at)
      return [
        {
          shown: (node as DefaultTreeAdapterTypes.TextNode).value.replace(/\s+/g, ' '),
          from: at.startOffset,
          to: at.endOffset,
        },
      ]
    if (node.nodeName === 'br' && at)
      return [{ shown: '\n', from: at.startOffset, to: at.endOffset }]
    return 'childNodes' in node ? runsOf(node.childNodes) : []
  })

/** The runs as they read in a row: no space twice, none at the ends or beside a line break. */
const readInARow = (runs: readonly Run[]): Run[] => {
  const read = runs.map((run) => ({ ...run }))
  let before = '\n'
  for (const run of read) {
    if (run.shown.startsWith(' ') && /[ \n]$/.test(before)) run.shown = run.shown.slice(1)
    if (run.shown !== '') before = run.shown
  }
  let after = '\n'
  for (const run of read.toReversed()) {
    if (run.shown.endsWith(' ') && after.startsWith('\n')) run.shown = run.shown.slice(0, -1)
    if (run.shown !== '') after = run.shown
  }
  return read
}

const isWords = (run: Run): boolean => run.shown.trim() !== ''
const hasPicture = (element: Element): boolean =>
  element.childNodes.some(
    (node) => 'tagName' in node && (node.tagName === 'img' || hasPicture(node)),
  )

const wrappingsIn = (element: Element, runs: readonly Run[]): Wrapping[] =>
  element.childNodes.flatMap((node): Wrapping[] => {
    if (!('tagName' in node)) return []
    const at = node.sourceCodeLocation
    const within = wrappingsIn(node, runs)
    const inside = at
      ? runs.filter(
          (run) => run.from < run.to && run.from >= at.startOffset && run.to <= at.endOffset,
        )
      : []
    return at && wrapping.has(node.tagName) && !hasPicture(node) && inside.some(isWords)
      ? [{ from: at.startOffset, to: at.endOffset, runs: inside }, ...within]
      : within
  })

/** The paragraphs, list items, headings and cells of a page, in order, with their source offsets. */
export const paragraphsIn = (html: string): Paragraph[] => {
  const found: Paragraph[] = []
  const visit = (nodes: readonly Node[]) => {
    for (const node of nodes) {
      if (!('tagName' in node)) continue
      const at = node.sourceCodeLocation
      if (own.has(node.tagName) && at?.startTag && at.endTag) {
        const [from, to] = [at.startTag.endOffset, at.endTag.startOffset]
        // An empty run at each end is where words go that are put before or after a link.
        const runs = [
          { shown: '', from, to: from },
          ...readInARow(runsOf(node.childNodes)),
          { shown: '', from: to, to },
        ]
        found.push({
          text: runs.map((run) => run.shown).join(''),
          from,
          to,
          runs,
          wrappings: wrappingsIn(node, runs),
        })
      } else visit(node.childNodes)
    }
  }
  visit(parseFragment(html, { sourceCodeLocationInfo: true }).childNodes)
  return found
}

const asHtml = (text: string): string =>
  text.replace(/[&<>]/g, (character) => `&#${character.charCodeAt(0)};`).replace(/\n/g, '<br>')

/**
 * What each run says once the paragraph reads `text`: words that stay remain in the run they are in, and a word put in
 * another's place goes where that one was, so that a link keeps its words and its address. Words put beside a link are not
 * part of it.
 */
const written = (paragraph: Paragraph, text: string): Map<Run, string> => {
  const says = new Map(paragraph.runs.map((run) => [run, '']))
  const owners = paragraph.runs.flatMap((run) => [...run.shown].map(() => run))
  let at = 0
  let replaced: Run | undefined
  for (const run of wordDifference(paragraph.text, text)) {
    const characters = [...run.text]
    if (run.change === 'new') {
      const beside = [owners[at - 1] ?? paragraph.runs[0], owners[at] ?? paragraph.runs.at(-1)]
      const owner =
        replaced ??
        beside.find((run) => run && !paragraph.wrappings.some((wrap) => wrap.runs.includes(run))) ??
        beside[0]
      if (owner) says.set(owner, `${says.get(owner) ?? ''}${run.text}`)
      replaced = undefined
      continue
    }
    replaced = run.change === 'gone' ? owners[at] : undefined
    for (const character of characters) {
      const owner = owners[at]
      if (run.change === 'same' && owner) says.set(owner, `${says.get(owner) ?? ''}${character}`)
      at += 1
    }
  }
  return says
}

/** One paragraph made to read `text`, its links, emphasis and pictures kept; every byte outside what changed as it was. */
const rewritten = (html: string, paragraph: Paragraph, text: string): string => {
  if (paragraph.text === text) return html
  const says = written(paragraph, text)
  // A link or emphasis of which every word was taken away goes with its words.
  const emptied = paragraph.wrappings.filter((wrapping) =>
    wrapping.runs.every((run) => says.get(run)?.trim() === ''),
  )
  const pieces = [
    ...paragraph.runs
      .filter(
        (run) => says.get(run) !== run.shown && !emptied.some((wrap) => wrap.runs.includes(run)),
      )
      .map((run) => ({ from: run.from, to: run.to, html: asHtml(says.get(run) ?? '') })),
    ...outermost(emptied).map(({ from, to }) => ({ from, to, html: '' })),
  ]
  return pieces
    .toSorted((a, b) => b.from - a.from || b.to - a.to)
    .reduce((source, { from, html, to }) => source.slice(0, from) + html + source.slice(to), html)
}
const outermost = (wrappings: readonly Wrapping[]): Wrapping[] =>
  wrappings.filter(
    (wrapping) =>
      !wrappings.some(
        (other) => other !== wrapping && wrapping.from >= other.from && wrapping.to <= other.to,
      ),
  )

/** What somebody made of one paragraph: what it said when they began, and what it shall say. */
export interface ParagraphEdit {
  index: number
  was: string
  text: string
}

/**
 * The page with all its edited paragraphs; a paragraph that was left alone is not touched, whatever it says by now. `added` becomes
 * a new paragraph at the end. The indices of the paragraphs that no longer say what they said when any is among those
 * edited: then nothing is written.
 */
export const withParagraphs = (
  html: string,
  edits: readonly ParagraphEdit[],
  added: string,
): { html: string } | { changedMeanwhile: number[] } => {
  const paragraphs = paragraphsIn(html)
  const meant = edits
    .map(({ index, was, text }) => ({
      index,
      was: collapsed(was).trim(),
      text: collapsed(text).trim(),
    }))
    .filter((edit) => edit.was !== edit.text)
  const lost = meant.filter((edit) => paragraphs[edit.index]?.text !== edit.was)
  if (lost.length > 0) return { changedMeanwhile: lost.map((edit) => edit.index) }
  const edited = meant
    .toSorted((a, b) => b.index - a.index)
    .reduce((source, edit) => {
      const paragraph = paragraphs[edit.index]
      return paragraph ? rewritten(source, paragraph, edit.text) : source
    }, html)
  const end = collapsed(added).trim()
  return { html: end === '' ? edited : `${edited}<p>${asHtml(end)}</p>` }
}
