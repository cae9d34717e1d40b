import { describe, expect, it } from 'vitest'
import { grouped } from './index.ts'

describe('a list in groups', () => {
  it('keeps its order in each group, and the groups in the order of their first', () => {
    const lengths = grouped(['rope', 'oar', 'sail', 'mast', 'bow'], ({ length }) => length)
    expect([...lengths]).toEqual([
      [4, ['rope', 'sail', 'mast']],
      [3, ['oar', 'bow']],
    ])
  })
  it('asks each for its group once', () => {
    let asked = 0
    grouped(['a', 'a', 'b'], (one) => (asked++, one))
    expect(asked).toBe(3)
  })
})
