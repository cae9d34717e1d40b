import { describe, expect, it } from 'vitest'
import { processorMilliseconds } from '../testing/processorTime.testing.ts'
import { htmlOf } from './blocks.testing.ts'

describe('blocks of hostile HTML', () => {
  it.each([
    ['links that never close', '<a href="part:quiz">'.repeat(6_000)],
    ['tags that never close', `${'<a '.repeat(40_000)}href="part:quiz"`],
    ['braces', '{week,'.repeat(30_000)],
    ['nesting', '<div>'.repeat(6_000)],
  ])('(%s) are written out in bounded time', (_, html) => {
    const work = () => void htmlOf({ kind: 'fixed-text', key: 'f', html })
    expect(processorMilliseconds(work)).toBeLessThan(8000)
  })
})
