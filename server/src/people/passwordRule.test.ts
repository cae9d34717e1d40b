import { describe, expect, it } from 'vitest'
import { passwordProblem } from './passwordRule.ts'

const person = { email: 'ines.carvalho@kestrelsound.example', name: 'Ines Carvalho-Roe' }

// NIST SP 800-63B-4, 3.1.1.2 (from memory): 15 characters where nothing else is asked for, each code point counted as one,
// compared with common, repeated, sequential and context-specific values, no rules of composition.
describe('a password', () => {
  it.each([
    'a kettle under the pier',
    'fair-winds-2026',
    'онвесламивверхпотечению',
    '七つの海を渡る小さな船に乗って帰る夜',
    '🛶🌊🐚🦀🪢⚓️🧭🪸🐙🦑🦞🐠🐟🐬🐳',
    'correct horse battery staple',
    'ines carvalho keeps seven herons',
    'x'.repeat(5) + 'no rules of signs at all',
  ])('is taken when nobody would guess it: %s', (password) => {
    expect(passwordProblem(password, person)).toBeNull()
  })

  it.each([
    ['fourteen signs', 'fourteen signs', /at least 15 characters/],
    ['fewer signs than bytes', '🛶🛶🛶🛶🛶🛶🛶🛶', /at least 15 characters/],
    ['one sign', 'aaaaaaaaaaaaaaaa', /first that are tried/],
    ['a piece again and again', 'abcabcabcabcabcabc', /first that are tried/],
    ['a common one twice', 'Password Password', /first that are tried/],
    ['a common one with figures', '2026-password-123456', /first that are tried/],
    ['a row of the keyboard', 'qwertyuiopasdfgh', /first that are tried/],
    ['the alphabet backwards', 'zyxwvutsrqponmlkj', /first that are tried/],
    ['figures in order', '12345678901234567', /first that are tried/],
    ['one’s own address', 'ines.carvalho@kestrelsound.example', /hardly more than/],
    ['one’s own name and little else', 'Ines Carvalho-Roe!1', /hardly more than/],
    ['the name of the program', 'wickerframe-2026!!', /hardly more than/],
  ])('that is %s is refused, and it says why', (_, password, why) => {
    expect(passwordProblem(password, person)).toMatch(why)
  })
})
