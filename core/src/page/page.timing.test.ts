import { describe, expect, it } from 'vitest'
import { processorMilliseconds } from '../testing/processorTime.testing.ts'
import { pageWith } from '../expand/blocks.testing.ts'
import { analysePage, readBlocks, wordDifference } from './index.ts'
import { parseTidy } from './parseTidy.ts'

describe('a difference of words', () => {
  it('is capped for unrelated long texts', () => {
    const long = (word: string) => Array.from({ length: 5000 }, (_, i) => word + i).join(' ')
    const work = () => expect(wordDifference(long('a'), long('b'))).toHaveLength(2)
    expect(processorMilliseconds(work)).toBeLessThan(2000)
  })
})

describe('reading a tidy page', () => {
  it('takes time in proportion to its length, also where it gives up', () => {
    const attributes = Array.from({ length: 100_000 }, (_, i) => ` a${i}`).join('')
    for (const html of [
      ...['<a ', '<p title="', '<b>', '&lt', '<', '<p x="', '<i></i>'].map((unit) =>
        unit.repeat(200_000),
      ),
      `<p${attributes}>a</p>`,
      `<p${' '.repeat(1_000_000)}`,
    ])
      expect(processorMilliseconds(() => parseTidy(html))).toBeLessThan(2000)
  })
})

describe('reading a text with spots in its sentences', () => {
  it('takes time in proportion to what stands there, also where somebody repeats what a spot says', () => {
    const page = pageWith([
      {
        kind: 'fixed-text',
        key: 'a',
        html: '<p>Write to [[whom]] by [[when]], or to [[whom else]], and wait.</p>',
      },
    ])
    for (const unit of ['[when] ', 'Write to [whom] ', ' or to ', '[[', 'and wait.'])
      for (const block of ['a', 'b']) {
        const html = `<div data-wicker-block="${block}"><p>Write to ${unit.repeat(40_000)} and wait.</p></div>`
        const facts = analysePage(html)
        expect(
          processorMilliseconds(() => readBlocks(page.blocks, facts, '2026-09-16')),
        ).toBeLessThan(2000)
      }
  })
})
