import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { pageWith } from '../expand/blocks.testing.ts'
import { perfectPiece } from '../firstCourse/index.ts'
import type { ExpectedBlock } from '../expand/index.ts'
import { blockKind, escapeHtml, isNote, type Block } from '../template/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { askingBlocks, prompts } from './asked.testing.ts'
import { analysePage, askedOf, readBlocks, renderPage } from './index.ts'

const around: Block[] = [
  {
    kind: 'fixed-text',
    key: 'above',
    strength: 'must',
    html: '<p>The quay is slippery when wet.</p>',
  },
  { kind: 'fixed-text', key: 'below', strength: 'must', html: '<p>Ask at the harbour desk.</p>' },
]
/** HTML with the pieces chosen answered, each in its place. */
const answeredIn = (
  html: string,
  { asks, kind }: ExpectedBlock,
  isAnswered: (piece: number) => boolean,
): string => {
  let now = html
  let from = 0
  asks.forEach((piece, i) => {
    const at = now.indexOf(piece, from)
    if (at < 0) throw new Error(`${piece} is nowhere in ${now}`)
    const stands = isAnswered(i)
      ? isNote(piece)
        ? ''
        : perfectPiece(piece, blockKind(kind).answer ?? 'text', i + 1 + from)
      : piece
    now = now.slice(0, at) + stands + now.slice(at + piece.length)
    from = at + stands.length
  })
  return now
}
/** Blocks between two fixed texts on a page, as the page’s readings tell of them once the pieces chosen are answered. */
const readWith = (
  blocks: readonly Block[],
  marked: boolean,
  isAnswered: (piece: number) => boolean,
) => {
  const [above, below] = around
  const page = pageWith([above ?? {}, ...blocks, below ?? {}])
  const asking = page.blocks.slice(1, -1)
  const filled = page.blocks.map((block) => ({
    ...block,
    html: answeredIn(block.html, block, isAnswered),
  }))
  const html = renderPage({ ...page, blocks: filled }, '2026-09-16')
  const plain = marked ? html : html.replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
  const read = readBlocks(page.blocks, analysePage(plain), '2026-09-16')
  return { asking, read: read.slice(1, -1), others: [read[0]?.state, read.at(-1)?.state] }
}

describe('what is asked of the instructor piece by piece, whatever is asked, in whatever language', () => {
  it.each([true, false])(
    'is unfilled as it is deployed, and filled once every piece is answered (marks kept: %s)',
    (marked) => {
      fc.assert(
        fc.property(askingBlocks, (block) => {
          const fresh = readWith([block], marked, () => false)
          const [asking] = fresh.asking
          expect(fresh.read).toMatchObject([
            { state: 'unfilled', stillAsks: asking && askedOf(asking)?.prompts },
          ])
          const done = readWith([block], marked, () => true)
          expect(done.read).toMatchObject([{ state: 'filled', stillAsks: [], ofType: true }])
          for (const { others } of [fresh, done]) expect(others).toEqual(['unchanged', 'unchanged'])
        }),
        propertyRuns(),
      )
    },
  )
  it('says of one that is partly answered just what still asks', () => {
    fc.assert(
      fc.property(askingBlocks, fc.nat(62), (block, answered) => {
        const isAnswered = (piece: number) => ((answered >> piece) & 1) === 1
        const {
          asking: [asking],
          read: [read],
        } = readWith([block], true, isAnswered)
        const still = asking?.asks.flatMap((piece, i) =>
          isAnswered(i) ? [] : analysePage(piece).paragraphs.map(({ text }) => text),
        )
        expect(read?.stillAsks).toEqual(still)
        expect(read?.state).toBe(still?.length ? 'unfilled' : 'filled')
      }),
      propertyRuns(),
    )
  })
  it('is told apart from what is asked beside it, answered or not, with its marks and without', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(askingBlocks, { minLength: 2, maxLength: 5, selector: ({ kind }) => kind }),
        fc.boolean(),
        (blocks, marked) => {
          const keyed = blocks.map((block, i) => ({ ...block, key: `asks-${i}` }))
          const fresh = readWith(keyed, marked, () => false)
          expect(fresh.read.map(({ state }) => state)).toEqual(keyed.map(() => 'unfilled'))
          const done = readWith(keyed, marked, () => true)
          expect(done.read.map(({ state }) => state)).toEqual(keyed.map(() => 'filled'))
          expect([...fresh.others, ...done.others]).toEqual(Array(4).fill('unchanged'))
        },
      ),
      propertyRuns(),
    )
  })
})

const said = fc.constantFrom('the quay', 'R&D', 'à midi', '潮', '“now”', 'x < y')
/** Sentences with spots in them, one paragraph each. */
const sentences = fc.array(
  fc.array(
    fc.oneof(
      said,
      prompts(1).map(([prompt = '']) => `[[${prompt}]]`),
    ),
    { minLength: 1, maxLength: 5 },
  ),
  { minLength: 1, maxLength: 3 },
)
const spotted = sentences
  .map((paragraphs): Block => ({
    kind: 'fixed-text',
    key: 'asks',
    strength: 'must',
    // A sentence begins and ends with words of its own, by which it is known.
    html: paragraphs
      .map(
        (pieces, i) => `<p>Sentence ${i} begins: ${pieces.map(escapeHtml).join(' and ')}, so.</p>`,
      )
      .join(''),
  }))
  .filter((block) => block.kind === 'fixed-text' && block.html.includes('[['))

describe('what is asked within sentences of the template’s own', () => {
  it.each([true, false])(
    'is unfilled, partly filled and filled, whatever is asked; the sentences stand (marks kept: %s)',
    (marked) => {
      fc.assert(
        fc.property(spotted, fc.nat(255), (block, answered) => {
          const isAnswered = (piece: number) => ((answered >> piece) & 1) === 1
          const { asking, read, others } = readWith([block], marked, isAnswered)
          const still = asking[0]?.asks.flatMap((piece, i) =>
            isAnswered(i) ? [] : analysePage(piece).paragraphs.map(({ text }) => text),
          )
          expect(read).toMatchObject([
            { state: still?.length ? 'unfilled' : 'filled', stillAsks: still },
          ])
          expect(others).toEqual(['unchanged', 'unchanged'])
        }),
        propertyRuns(),
      )
    },
  )
  it('is altered fixed text where the sentence itself is changed', () => {
    fc.assert(
      fc.property(spotted, (block) => {
        const page = pageWith([block])
        const html = renderPage(page, '2026-09-16').replace('begins', 'ends')
        const [reading] = readBlocks(page.blocks, analysePage(html), '2026-09-16')
        expect(reading?.state).toBe('altered')
      }),
      propertyRuns(),
    )
  })
})
