import { describe, expect, it } from 'vitest'
import { whyNotRead } from '../page/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { hostile } from './hostile.testing.ts'
import { checkCourse } from './index.ts'

describe('hostile pages', () => {
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
