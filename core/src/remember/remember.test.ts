import { describe, expect, it } from 'vitest'
import { remember, rememberOf } from './index.ts'

describe('what is remembered', () => {
  it('is worked out once for each key', () => {
    const asked: string[] = []
    const double = remember(10, (key: string) => {
      asked.push(key)
      return key + key
    })
    expect([double('a'), double('b'), double('a')]).toEqual(['aa', 'bb', 'aa'])
    expect(asked).toEqual(['a', 'b'])
  })

  it('is forgotten when there is too much of it, and comes out the same again', () => {
    let works = 0
    const square = remember(3, (key: number) => {
      works += 1
      return key * key
    })
    for (const key of [1, 2, 3, 4, 1]) expect(square(key)).toBe(key * key)
    expect(works).toBe(5)
  })

  it('keeps null, which is an answer too, and answers by object', () => {
    let works = 0
    const nothing = rememberOf((key: { answer: null }) => {
      works += 1
      return key.answer
    })
    const [one, other] = [{ answer: null }, { answer: null }]
    expect([nothing(one), nothing(one), nothing(other)]).toEqual([null, null, null])
    expect(works).toBe(2)
  })
})
