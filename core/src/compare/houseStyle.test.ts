import { describe, expect, it } from 'vitest'
import { firstHouseStyle } from '../houseStyle/index.ts'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { compareTemplates } from './index.ts'

const wordsOf = (before: Parameters<typeof compareTemplates>[0], after: typeof before) =>
  compareTemplates(before, after).map(({ words }) => words)

describe('what changed in how pages look', () => {
  const template = exampleTemplate()
  const styled = { ...template, houseStyle: firstHouseStyle }

  it('is told colour by colour', () => {
    const other = {
      ...firstHouseStyle,
      headings: 'line' as const,
      colours: { ...firstHouseStyle.colours, tint: '#eeeeee' },
    }
    expect(wordsOf(styled, { ...styled, houseStyle: other })).toEqual([
      'headings bar, now line',
      'colour of notes #f6eee2, now #eeeeee',
    ])
    expect(wordsOf(styled, styled)).toEqual([])
  })

  it('is told when it begins, and when it ends', () => {
    expect(wordsOf(template, styled)).toEqual([expect.stringMatching(/^house style /)])
    expect(wordsOf(styled, template)).toEqual([expect.stringMatching(/^house style .* no longer$/)])
  })
})
