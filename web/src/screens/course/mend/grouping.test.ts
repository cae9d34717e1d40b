import { describe, expect, it } from 'vitest'
import type { Finding, FindingPlace } from '@wickerframe/core'
import { checkedExample, misnamedExample } from '../../../testing/checked.testing.ts'
import { grouped, groupings, isShared, mineFirst, nextMonday, type Grouping } from './grouping.ts'

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

const { template, course } = checkedExample()
const about = {
  template,
  course,
  people: [{ name: 'Ann Berg', email: 'ann@kestrelsound.example' }],
}
const titles = (findings: readonly Finding[], by: Grouping) =>
  grouped(findings, by, about).map((group) => group.title)

describe('groups of findings', () => {
  const findings = [
    finding('item-missing', [['Week 1'], ['Week 2']]),
    finding('link-dead', [['Week 2', 'Overview']], 'designer'),
  ]
  it('stand by whose move it is', () => {
    expect(titles(findings, 'person')).toEqual(['Ann Berg', 'The designers'])
    expect(
      grouped(findings, 'person', { ...about, people: [] }).map((group) => group.title),
    ).toEqual(['ann@kestrelsound.example', 'The designers'])
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
  it('stand under the page or module somebody opens for them, in the order of the course', () => {
    const at = (rule: string, place: Partial<FindingPlace['place']>) => {
      const made = finding(rule, [place.path ?? []])
      return {
        ...made,
        places: made.places.map((one) => ({ ...one, place: { ...one.place, ...place } })),
      }
    }
    const [first, week] = course.modules
    expect(
      titles(
        [
          at('course-unpublished', { path: ['NAV 110'] }),
          at('item-name', { path: ['Gone', 'Page'], part: 'x', foundId: 'x' }),
          at('item-name', { path: [week?.name ?? '', 'Overview'], part: 'overview', week: 2 }),
          at('due-missing', { path: ['Week 3', 'Essay'], part: 'essay', week: 3 }),
          at('must-part-hidden', { path: [first?.name ?? ''], foundId: 'm' }),
          at('fill-in-unfilled', { path: ['Welcome'], part: 'home-page', foundId: 'h' }),
        ],
        'page',
      ),
    ).toEqual(['The home page', first?.name, 'Weeks', 'Gone', 'The course'])
  })
  it('open a finding of two modules into each of them', () => {
    const stand = ['Start Here', 'Grades', 'Grades']
    const two = finding(
      'item-name',
      stand.map((name) => [name, 'Page']),
    )
    const places = two.places.map((one, i) => ({
      ...one,
      place: { ...one.place, foundId: `item-${i}` },
    }))
    expect(
      grouped([{ ...two, places }], 'page', about).map((group) => [
        group.title,
        group.findings.map(({ message, places: { length } }) => [message, length]),
      ]),
    ).toEqual([
      ['Start Here', [['m0', 1]]],
      ['Grades', [['m1', 2]]],
    ])
  })
  it.each(groupings)('hold every place of every finding once, by %s', (by) => {
    const { result } = misnamedExample()
    const fingerprints = (some: readonly Finding[]) =>
      some.flatMap(({ places }) => places.map(({ fingerprint }) => fingerprint)).sort()
    expect(fingerprints(result.findings).length).toBeGreaterThan(10)
    expect(
      fingerprints(grouped(result.findings, by, about).flatMap((group) => group.findings)),
    ).toEqual(fingerprints(result.findings))
  })
})

it('next Monday is never today', () => {
  expect([nextMonday('2026-09-16'), nextMonday('2026-09-20'), nextMonday('2026-09-21')]).toEqual([
    '2026-09-21',
    '2026-09-21',
    '2026-09-28',
  ])
})
