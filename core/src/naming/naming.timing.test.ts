import { describe, expect, it } from 'vitest'
import { growth } from '../testing/growth.testing.ts'
import { foldName, inferFormats, judgeName, parseFormat, readName } from './index.ts'

const formatOf = (text: string) => {
  const format = parseFormat(text)
  if (!format.ok) throw new Error('the format is sound')
  return format.value
}
const byWeek = formatOf('Week {week} · {dates} · {topic}')
const week3 = { week: 3, dates: { first: '2026-09-14', last: '2026-09-20' } }

describe('folding', () => {
  it('takes time in proportion to the name', () => {
    const work = (length: number) => {
      const name = 'e\u0301 '.repeat(length / 3)
      for (let i = 0; i < 30; i++) foldName(`${name}${i}`)
    }
    // Eight times the length; 64 times the time if it grew with the square.
    expect(growth(2000, 16_000, work)).toBeLessThan(20)
  })
})

describe('inferring a format', () => {
  it('takes time in proportion to the names', () => {
    const names = (count: number) =>
      Array.from(
        { length: count },
        (_, i) =>
          `Week ${(i % 16) + 1} · Sep ${(i % 28) + 1} – Sep ${(i % 28) + 2} · Topic no. ${i}`,
      )
    // Eight times the names; 64 times the time if it grew with the square.
    expect(growth(500, 4000, (count) => void inferFormats(names(count)))).toBeLessThan(20)
  })
})

const context = { places: [week3], near: '2026-08-31', classSections: ['01', '02'] }

describe('mending a name', () => {
  it('takes time in proportion to the name, up to the cap', () => {
    const hostile = ['week 3 ', '9/14 - ', '(copy) ', 'a-', 'Sep 14 to ', '3rd ']
    const work = (length: number) => {
      const names = hostile.map((unit) =>
        unit.repeat(Math.ceil(length / unit.length)).slice(0, length),
      )
      for (let i = 0; i < 2; i++) for (const name of names) judgeName(byWeek, name, context)
    }
    // Six times the length; 36 times the time if it grew with the square.
    expect(growth(316, 1900, work)).toBeLessThan(15)
  })
})

describe('reading a name', () => {
  it('takes time in proportion to the format, up to the cap, and refuses beyond', () => {
    const name = 'a'.repeat(1500)
    const formats = { 10: formatOf('{topic}a'.repeat(10)), 60: formatOf('{topic}a'.repeat(60)) }
    const work = (fields: number) => {
      for (let i = 0; i < 10; i++) readName(fields === 60 ? formats[60] : formats[10], name, {})
    }
    // Six times the fields; 36 times the time if it grew with the square.
    expect(growth(10, 60, work)).toBeLessThan(15)
  })
  it('takes time in proportion to the name, also for a hostile one', () => {
    const hostile = formatOf('{topic}a{title}a{instructor}a{term}b')
    const work = (length: number) => {
      const name = 'a'.repeat(length)
      for (let i = 0; i < 20; i++) readName(hostile, name, {})
    }
    // Six times the length; 36 times the time if it grew with the square.
    expect(growth(300, 1800, work)).toBeLessThan(15)
  })
})
