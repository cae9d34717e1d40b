import { describe, expect, it } from 'vitest'
import { processorMilliseconds } from '../testing/processorTime.testing.ts'
import { letIn } from './letIn.ts'

describe('what is let in', () => {
  it('is told in time in proportion to its length', () => {
    const work = () => {
      for (const unit of ['<b>', '<a href="', '<p class="x" ', '&lt;', '<!--', '<math><mtext>'])
        letIn(unit.repeat(30_000))
    }
    expect(processorMilliseconds(work)).toBeLessThan(5000)
  })
})
