import { describe, expect, it } from 'vitest'
import { fillMessage } from './message.ts'
import { rules } from './registry.ts'

describe('a message', () => {
  it.each([
    ['{seen words}', '1', '1 word'],
    ['{seen words}', '0', '0 words'],
    ['{seen words}', '12', '12 words'],
    ['in {seen}, words', '1', 'in 1, words'],
  ])('%s with %s is “%s”', (sentence, seen, says) => {
    expect(fillMessage(sentence, { seen })).toBe(says)
  })
  it('that wants a value it was not given is a mistake in the rule', () => {
    expect(() => fillMessage('{seen} and {wanted}', { seen: '1' })).toThrow('wanted')
  })
  it('of no rule puts a number before a noun that is always in the plural', () => {
    const plural = rules.flatMap(({ id, messages }) =>
      Object.values(messages).flatMap((sentence) =>
        /\{(?:count|seen|wanted|most|found|more)\} (?:items|modules|words|points|weeks|parts|pages|links)\b/.test(
          sentence,
        )
          ? [`${id}: ${sentence}`]
          : [],
      ),
    )
    expect(plural).toEqual([])
  })
})
