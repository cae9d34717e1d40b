import { describe, expect, it } from 'vitest'
import { firstWords } from './firstWords.ts'

describe('the first words of a block', () => {
  it.each([
    ['<h3>Welcome</h3><p>aboard</p>', 'Welcome aboard'],
    ['<p>Tea &amp; biscuits&nbsp;at <b>four</b></p>', 'Tea & biscuits at four'],
    ['<img src="asset:harbour.svg" alt="">', ''],
    [
      'Questions are answered within two working days, by e-mail or in the discussion.',
      'Questions are answered within two working days …',
    ],
    ['x'.repeat(80), `${'x'.repeat(20)} …`],
  ])('of %s', (html, words) => {
    expect(firstWords(html)).toBe(words)
  })
})
