import { describe, expect, it } from 'vitest'
import type { Finding } from '@wickerframe/core'
import { grouped, isShared, mineFirst, nextMonday } from './grouping.ts'

const finding = (
  rule: string,
  paths: string[][],
  mender: Finding['mender'] = 'instructor',
): Finding => ({
  fingerprint: rule,
  rule,
  title: rule,
  strength: 'must',
  message: 'm',
  why: '',
  mender,
  owner: mender === 'instructor' ? 'ann@kestrelsound.example' : null,
  effortMinutes: 1,
  basis: null,
  places: paths.map((path, i) => ({
    fingerprint: `${rule}${i}`,
    place: { path, part: null, instance: null, week: null, foundId: null },
    message: `m${i}`,
    evidence: [],
    expected: '',
    mend: null,
    digest: '',
    waived: null,
  })),
})

describe('groups of findings', () => {
  const findings = [
    finding('item-missing', [['Week 1'], ['Week 2']]),
    finding('link-dead', [['Week 2', 'Overview']], 'designer'),
  ]
  it('stand by whose move it is', () => {
    expect(
      grouped(findings, 'move', [{ name: 'Ann Berg', email: 'ann@kestrelsound.example' }]).map(
        (group) => group.title,
      ),
    ).toEqual(['Ann Berg', 'The designers'])
    expect(grouped(findings, 'move').map((group) => group.title)).toEqual([
      'ann@kestrelsound.example',
      'The designers',
    ])
  })
  it('begin with one’s own, where others have some too', () => {
    const of = (rule: string, owner: string) => ({ ...finding(rule, [['A']]), owner })
    const all = [of('a', 'bo@x.example'), of('b', 'ann@x.example'), of('c', 'bo@x.example')]
    expect(mineFirst(all, 'ann@x.example').map(({ rule }) => rule)).toEqual(['b', 'a', 'c'])
    expect(['ann@x.example', 'cy@x.example'].map((email) => isShared(all, email))).toEqual([
      true,
      false,
    ])
    expect(isShared(all.slice(0, 1), 'bo@x.example')).toBe(false)
  })
  it('open a finding of two modules into each of them', () => {
    expect(
      grouped(findings, 'module').map((group) => [
        group.title,
        group.findings.map((finding) => [finding.rule, finding.places.length]),
      ]),
    ).toEqual([
      ['Week 1', [['item-missing', 1]]],
      [
        'Week 2',
        [
          ['item-missing', 1],
          ['link-dead', 1],
        ],
      ],
    ])
  })
})

it('next Monday is never today', () => {
  expect([nextMonday('2026-09-16'), nextMonday('2026-09-20'), nextMonday('2026-09-21')]).toEqual([
    '2026-09-21',
    '2026-09-21',
    '2026-09-28',
  ])
})
