import { expect, it } from 'vitest'
import { spellsByFinding } from './spells.ts'

it('a finding that came back is one finding with its spells in order', () => {
  const spell = (fingerprint: string, came: string, went: string | null) => ({
    fingerprint,
    rule: 'item-name',
    strength: 'must' as const,
    message: fingerprint,
    came,
    went,
  })
  const found = spellsByFinding([
    spell('a', '2026-09-14', null),
    spell('b', '2026-09-01', '2026-09-12'),
    spell('a', '2026-09-01', '2026-09-03'),
  ])
  expect(
    found.map(({ fingerprint, spells }) => [fingerprint, spells.map(({ came }) => came)]),
  ).toEqual([
    ['a', ['2026-09-01', '2026-09-14']],
    ['b', ['2026-09-01']],
  ])
})
