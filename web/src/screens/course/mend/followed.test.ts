import { expect, it } from 'vitest'
import type { Finding } from '@wickerframe/core'
import type { FollowUp } from '@wickerframe/contract'
import { misnamedExample } from '../../../testing/checked.testing.ts'
import { followedOf, openPlaces, unraised } from './followed.ts'

/** A finding of three places. */
const manyPlaces = (): Finding => {
  const { result } = misnamedExample()
  const found = result.findings.find(({ places }) => places.length > 2)
  if (!found) throw new Error('no finding of three places')
  return { ...found, places: found.places.slice(0, 3) }
}
const followUp = (fingerprint: string, state: FollowUp['state']): FollowUp => ({
  fingerprint,
  state,
  owner: 'ann@kestrelsound.example',
  message: '',
  note: '',
  raisedBy: 'designer@kestrelsound.example',
  raisedAt: '2026-09-14T12:00:00Z',
  promisedFor: null,
  answer: '',
})

it('a finding is raised as long as one of its places is, and says what needs most', () => {
  const finding = manyPlaces()
  const [first = '', second = '', third = ''] = finding.places.map(({ fingerprint }) => fingerprint)
  expect(followedOf(finding, [followUp('elsewhere', 'raised')])).toBeNull()
  expect(unraised(finding, [])).toEqual([first, second, third])
  const some = [followUp(third, 'mended'), followUp(first, 'promised'), followUp(second, 'raised')]
  expect(followedOf(finding, some)).toMatchObject({
    followUp: { fingerprint: second, state: 'raised' },
    pending: [second, first],
  })
  // A place that was mended and is found again is nobody’s yet.
  expect(unraised(finding, some)).toEqual([third])
})
it('what is waived is nobody’s to follow up', () => {
  const finding = manyPlaces()
  const waived = {
    ...finding,
    places: finding.places.map((place, i) => ({
      ...place,
      waived: i === 0 ? { id: '1', reason: 'so', until: null, changedSince: false } : null,
    })),
  }
  expect(openPlaces(waived)).toHaveLength(2)
  const [first = ''] = finding.places.map(({ fingerprint }) => fingerprint)
  expect(followedOf(waived, [followUp(first, 'raised')])).toBeNull()
})
