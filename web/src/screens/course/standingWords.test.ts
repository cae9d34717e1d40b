import { describe, expect, it } from 'vitest'
import type { CheckResult } from '@wickerframe/core'
import { courseSummary } from '../../testing/answers.testing.ts'
import { aboutCourse, openFindings, standingWords } from './standingWords.ts'
import { checkedExample } from '../../testing/checked.testing.ts'
import type { CourseDetail } from '@wickerframe/contract'

const counted = (more: Partial<CheckResult['counts']>, readiness: CheckResult['readiness']) => {
  const { result } = checkedExample()
  return { ...result, readiness, counts: { ...result.counts, met: 3, requirements: 5, ...more } }
}

describe('how a course stands', () => {
  it.each([
    [null, 'not checked as of this date'],
    [counted({}, 'ready'), '3 of 5 requirements met · ready'],
    [
      counted({ openMusts: 1, openShoulds: 2, waived: 1 }, 'not-ready'),
      '3 of 5 requirements met · 1 open must, 2 open shoulds · 1 waived',
    ],
    [
      counted({ cannotTell: 2 }, 'ready-as-far-as-seen'),
      '3 of 5 requirements met · ready as far as seen · 2 unseen',
    ],
  ])('is one line', (result, said) => {
    expect(standingWords(result)).toBe(said)
  })
  it('counts findings that somebody has to see to', () => {
    const { result } = checkedExample(({ module }) => void (module('week', 2).name = 'wk 2'))
    expect(openFindings(null)).toBe(0)
    expect(openFindings(result)).toBe(1)
    const waived = result.findings.map((finding) => ({
      ...finding,
      places: finding.places.map((place) => ({
        ...place,
        waived: { reason: 'agreed', until: null, changedSince: false },
      })),
    })) as CheckResult['findings']
    expect(openFindings({ ...result, findings: waived })).toBe(0)
  })
  it('says whose course it is, and under which version', () => {
    const course = courseSummary(1, {
      instructors: [],
      classSections: ['01', '02'],
      template: { key: 'harbour', title: 'Harbour', version: 1, newest: 3 },
    })
    expect(aboutCourse(course as CourseDetail)).toBe(
      'no instructor · class sections 01, 02 · on-campus · 16 weeks · Harbour, version 1 (newest is 3)',
    )
    expect(aboutCourse(courseSummary(1) as CourseDetail)).toMatch(/class section 01 .* a shell$/)
  })
})
