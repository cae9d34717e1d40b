import { expect, it } from 'vitest'
import { rules } from '../rules/index.ts'
import { compareFindings } from './compareFindings.ts'
import type { Finding } from './outcome.ts'

const finding = (rule: string, strength: Finding['strength'], title = ''): Finding =>
  ({ rule, strength, title }) as unknown as Finding

it('musts are told before shoulds, and each in the order of the rules', () => {
  const ids = rules.map(({ id }) => id)
  const [first = '', second = '', third = ''] = ids
  const told = [
    finding(third, 'should'),
    finding(first, 'should'),
    finding(second, 'must'),
    finding(first, 'must'),
    finding(second, 'should'),
  ].toSorted(compareFindings)
  expect(told.map(({ rule, strength }) => [strength, rule])).toEqual([
    ['must', first],
    ['must', second],
    ['should', first],
    ['should', second],
    ['should', third],
  ])
  expect(compareFindings(finding(first, 'must'), finding(first, 'must'))).toBe(0)
  expect(compareFindings(finding(third, 'must'), finding(second, 'must'))).toBeGreaterThan(0)
  expect(compareFindings(finding(second, 'must'), finding(third, 'must'))).toBeLessThan(0)
})

it('findings of one rule keep the order of the course', () => {
  const [rule = ''] = rules.map(({ id }) => id)
  const told = ['a', 'b', 'c'].map((title) => finding(rule, 'must', title))
  expect(told.toSorted(compareFindings)).toEqual(told)
})
