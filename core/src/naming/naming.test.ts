import fc from 'fast-check'
import { RE2JS } from 're2js'
import { describe, expect, it } from 'vitest'
import { ambiguityOf, formatOf, parseFormat, readName, renderName, type FieldValues } from './index.ts'

const week: FieldValues = { week: 3, dates: { first: '2026-09-14', last: '2026-09-20' }, topic: 'Tides', code: 'NAV 110', number: 3 }

describe('parsing a format', () => {
  it('points at an unknown field and suggests the near one', () => {
    const result = parseFormat('Week {wek} · {topic}')
    expect(result).toMatchObject({ ok: false, problems: [{ code: 'unknown-field', at: 6, suggestion: 'did you mean week?' }] })
  })
  it.each([
    ['Week {week', 'unclosed', 5],
    ['Week week}', 'stray-brace', 9],
    ['{? a {? b ?} ?}', 'nested-optional', 5],
    ['{week, MM}', 'bad-style', 7],
    ['   ', 'empty', 0],
    ['x'.repeat(501), 'too-long', 500],
    ['{week}'.repeat(65), 'too-many-fields', 384],
  ])('refuses %j as %s', (source, code, at) => {
    const result = parseFormat(source)
    expect(result.ok ? [] : result.problems.map((problem) => [problem.code, problem.at])).toContainEqual([code, at])
  })
  it('keeps escaped braces and backslashes as characters', () => {
    expect(renderName(formatOf('{{{week}}} \\{'), week).text).toBe('{3} {')
  })
  it('warns where two free fields stand side by side', () => {
    expect(ambiguityOf(formatOf('{topic} {title}'))).toContain('side by side')
    expect(ambiguityOf(formatOf('{topic} · {title}'))).toBeNull()
  })
})

describe('rendering', () => {
  it('writes fields, styles and ranges', () => {
    expect(renderName(formatOf('Week {week, 00} · {dates} · {topic}'), week).text).toBe('Week 03 · Sep 14 – Sep 20 · Tides')
  })
  it('writes a prompt for what has no value, and drops an optional stretch that lacks one', () => {
    expect(renderName(formatOf('Week {week}{? · {topic}?}'), { week: 1 })).toEqual({ text: 'Week 1', unfilled: [] })
    expect(renderName(formatOf('Week {week} · {topic}'), { week: 1 })).toEqual({ text: 'Week 1 · [topic]', unfilled: ['topic'] })
  })
})

describe('reading', () => {
  const format = formatOf('Week {week} · {dates} · {topic}')
  it('keeps the instructor’s own words exactly', () => {
    expect(readName(format, 'Week 3 · Sep 14 – Sep 20 · Tides 101 · in March', week)?.readings.at(-1)?.text).toBe('Tides 101 · in March')
  })
  it('tells small differences from another form', () => {
    expect(readName(format, 'week\u00a03 · Sep 14 - Sep 20  · Tides', week)?.follows).toBe('small-differences')
    expect(readName(format, 'Ｗｅｅｋ 3 · Sep 14 – Sep 20 · Tides', week)?.follows).toBe('small-differences')
    expect(readName(format, 'wk 3 - Tides', week)).toBeNull()
  })
  it('says which value is wrong and what was expected', () => {
    const wrong = readName(format, 'Week 4 · Sep 15 – Sep 21 · Tides', week)?.readings.filter((one) => one.expected !== null)
    expect(wrong?.map((one) => [one.field, one.text, one.expected])).toEqual([['week', '4', '3'], ['dates', 'Sep 15 – Sep 21', 'Sep 14 – Sep 20']])
  })
  it('is the inverse of rendering for topics that hold anything but the separator at their edge', () => {
    const topic = fc.string({ minLength: 1, maxLength: 60 }).map((text) => text.normalize('NFKC').replace(/\s+/g, ' ').trim()).filter((text) => /^[\p{L}\p{N}]/u.test(text) && !text.startsWith('['))
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), topic, (number, words) => {
        const values: FieldValues = { ...week, week: number, topic: words }
        const name = renderName(format, values).text
        const reading = readName(format, name, values)
        expect(reading?.readings.map((one) => one.text)).toEqual([String(number), 'Sep 14 – Sep 20', words])
        expect(reading?.readings.every((one) => one.expected === null)).toBe(true)
      }),
    )
  })
  it('accepts just what the same format as a regular expression accepts (re2js as the oracle)', () => {
    const simple = formatOf('{code} · Quiz {number}: {topic}')
    const oracle = RE2JS.compile('^(.+?) · quiz (\\d+): (.+)$')
    fc.assert(
      fc.property(fc.array(fc.constantFrom('nav', ' · ', 'quiz ', '12', ': ', 'x', '·', ' '), { maxLength: 9 }), (pieces) => {
        const name = pieces.join('').replace(/ +/g, ' ').trim()
        expect(readName(simple, name, {}) !== null).toBe(oracle.matcher(name).find())
      }),
      { numRuns: 2000 },
    )
  })
  it('takes time in proportion to the name, also for a hostile one', () => {
    const hostile = formatOf('{topic}a{title}a{instructor}a{term}b')
    const time = (length: number) => {
      const name = 'a'.repeat(length)
      readName(hostile, name, {})
      const start = performance.now()
      for (let i = 0; i < 20; i++) readName(hostile, name, {})
      return performance.now() - start
    }
    time(500)
    const ratio = Math.min(...[0, 1, 2].map(() => time(1800) / time(900)))
    expect(ratio).toBeLessThan(3)
    expect(readName(hostile, 'a'.repeat(2001), {})).toBeNull()
  })
})
