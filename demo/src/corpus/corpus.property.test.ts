import { everyCourseItem, parseTidy } from '@wickerframe/core'
import { parseFragment, serialize, type DefaultTreeAdapterTypes } from 'parse5'
import { describe, expect, it } from 'vitest'
import {
  editLevels,
  f1Of,
  identities,
  makeCorpus,
  noTally,
  precisionOf,
  recallOf,
  scoreCase,
  together,
} from '../index.ts'

/** A few courses of the first edit model; `npm run bench:pairing` measures many, of a model and seeds not used in development. */
describe('the corpus of edited courses', () => {
  it.each(editLevels.flatMap((level) => identities.map((identity) => [level, identity] as const)))(
    '%s editing, identity %s: pairs and findings are those the edits made',
    (level, identity) => {
      const scored = makeCorpus('first', level, identity, 4, 5).map(scoreCase)
      const pairing = scored.reduce((sum, { pairing }) => together(sum, pairing), noTally())
      const findings = scored.reduce((sum, { findings }) => together(sum, findings), noTally())
      expect(f1Of(pairing)).toBeGreaterThan({ light: 0.99, medium: 0.97, heavy: 0.9 }[level])
      expect(precisionOf(findings)).toBeGreaterThan(0.9)
      expect(recallOf(findings)).toBeGreaterThan(0.9)
    },
  )
  it.each(editLevels.flatMap((level) => identities.map((identity) => [level, identity] as const)))(
    'of another college, %s editing, identity %s: hardly anything is told that is in order',
    (level, identity) => {
      const scored = makeCorpus('third', level, identity, 5, 11).map(scoreCase)
      const findings = scored.reduce((sum, { findings }) => together(sum, findings), noTally())
      expect(precisionOf(findings)).toBeGreaterThanOrEqual(level === 'heavy' ? 0.95 : 0.98)
      expect(recallOf(findings)).toBeGreaterThanOrEqual(level === 'heavy' ? 0.95 : 0.97)
      if (level !== 'heavy') expect(scored.map(({ falseMusts }) => falseMusts)).not.toContain(1)
    },
  )
  it('is the same for the same seed, and another for another', () => {
    const [one, again, other] = [
      makeCorpus('other', 'medium', 'none', 1, 5),
      makeCorpus('other', 'medium', 'none', 1, 5),
      makeCorpus('other', 'medium', 'none', 1, 6),
    ]
    expect(one[0]?.course).toEqual(again[0]?.course)
    expect(one[0]?.truth).toEqual(again[0]?.truth)
    expect(other[0]?.truth).not.toEqual(one[0]?.truth)
  })
  it('has departures in its truth that no check was asked for', () => {
    const all = makeCorpus('first', 'heavy', 'kept', 4, 5).flatMap(({ truth }) =>
      [...truth.findings].map((told) => told.split(' ')[0]),
    )
    expect(new Set(all).size).toBeGreaterThan(8)
  })
  it('takes all identity away where there is to be none', () => {
    for (const { course } of makeCorpus('other', 'light', 'none', 3, 5))
      expect(JSON.stringify(course)).not.toMatch(/recordedAs":\{|data-wicker-/)
  })
  it('has pages that are tidy for the most part, and then read as the reference reads them', () => {
    const pages = new Set(
      makeCorpus('other', 'heavy', 'none', 6, 5).flatMap(({ course }) =>
        everyCourseItem(course).flatMap(({ item }) => item.html ?? []),
      ),
    )
    let tidy = 0
    for (const html of pages) {
      const read = parseTidy(html)
      if (!read) continue
      tidy += 1
      expect(
        serialize({
          nodeName: '#document-fragment',
          childNodes: read.map(withNames),
        } as DefaultTreeAdapterTypes.DocumentFragment),
      ).toBe(serialize(parseFragment(html)))
    }
    expect(tidy).toBeGreaterThan(pages.size * 0.9)
  })
})

/** A node as the reference writes it out. */
const withNames = (node: object): object => {
  const inner = (node as { childNodes?: object[] }).childNodes
  return inner === undefined
    ? node
    : { ...node, namespaceURI: 'http://www.w3.org/1999/xhtml', childNodes: inner.map(withNames) }
}
