import { describe, expect, it } from 'vitest'
import { analysePage, whyNotRead } from '../page/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { checkCourse } from './index.ts'

/** Pages that no person writes: each must be read, or refused with a reason, in bounded time. */
const hostile: Readonly<Record<string, string>> = {
  'a megabyte of nested tags': '<div>'.repeat(200_000),
  'nested formatting': '<b><i>'.repeat(150_000),
  'nested lists and tables': '<table><tr><td><ul><li>'.repeat(40_000),
  'a hundred thousand links': '<a href="/x">y</a>'.repeat(100_000),
  'broken encodings': `\uD800\uDC00\uFFFE${'\u0000\uFFFD\uDFFF'.repeat(50_000)}<p>${'\u202E'.repeat(10_000)}`,
  script: `<script>${'while(1);'.repeat(50_000)}</script><p onclick="x()">Text</p><svg onload=x()>`,
  'an attribute of a million characters': `<p title="${'x'.repeat(1_000_000)}" style="${'color:red;'.repeat(100_000)}">Text</p>`,
  'three million characters': 'word '.repeat(600_000),
  'a million quotation marks': `<a href=${'"'.repeat(300_000)}>`,
  'unfinished comments': '<!--'.repeat(200_000),
}

describe('hostile pages', () => {
  it.each(Object.entries(hostile))('%s: read or refused within two seconds', (_, html) => {
    const start = performance.now()
    const page = analysePage(html)
    expect(performance.now() - start).toBeLessThan(2000)
    expect(page.notRead === null || page.notRead.length > 10).toBe(true)
  })
  it('are refused for depth, for length and for the number of tags, and say which', () => {
    expect(whyNotRead(hostile['a megabyte of nested tags'] ?? '')).toContain('nested more than')
    expect(whyNotRead(hostile['three million characters'] ?? '')).toContain('longer than')
    expect(whyNotRead(hostile['a hundred thousand links'] ?? '')).toContain('more than 60,000 tags')
  })
  it('are told as could-not-tell in their course, and the rest of it is checked as ever', () => {
    const example = exampleCourse()
    example.item('week-overview', 3).html = hostile['a megabyte of nested tags'] ?? ''
    example.module('week', 4).name = 'wk 4'
    const checked = checkCourse({ ...example, asOf: '2026-09-16' })
    if (!checked.ok) throw new Error('the example fits')
    const { outcomes, findings, readiness } = checked.value
    const untold = outcomes.filter((outcome) => outcome.outcome === 'cannot-tell')
    expect(
      untold.some(
        (outcome) =>
          outcome.rule === 'fill-in-unfilled' && outcome.reason?.includes('nested more than'),
      ),
    ).toBe(true)
    expect(new Set(untold.map((outcome) => outcome.place.week))).toEqual(new Set([3]))
    expect(findings.map((finding) => finding.rule)).toEqual(['module-name'])
    expect(readiness).toBe('ready-as-far-as-seen')
  })
})
