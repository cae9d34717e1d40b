import { describe, expect, it } from 'vitest'
import { filteredRows, type PairingRows } from './pairingRows.ts'

const left = (id: string, group: string, loose: 'open' | null = null) => ({
  id,
  name: id,
  kind: 'page',
  strength: 'must',
  isModule: id === group,
  group,
  look: null,
  loose,
})
const right = (id: string, group: string, extra = false) => ({
  id,
  name: id,
  kind: 'page',
  isModule: id === group,
  group,
  note: '',
  extra,
})
const strand = (
  one: string,
  other: string,
  look: 'met' | 'open-must' | 'open-should' = 'met',
  moved = false,
) => ({ left: one, right: other, look, moved, by: 'recorded' as const, confidence: 1, reasons: [] })
const rows: PairingRows = {
  left: [
    left('week1', 'week1'),
    left('a1', 'week1'),
    left('week2', 'week2'),
    left('a2', 'week2'),
    left('b2', 'week2', 'open'),
    left('week3', 'week3'),
    left('a3', 'week3'),
  ],
  right: [
    right('W1', 'W1'),
    right('A1', 'W1'),
    right('W2', 'W2'),
    right('A2', 'W2'),
    right('W3', 'W3'),
    right('A3', 'W3'),
    right('own', 'W3', true),
  ],
  strands: [
    strand('week1', 'W1'),
    strand('a1', 'A1'),
    strand('week2', 'W2'),
    strand('a2', 'A2', 'open-should'),
    strand('week3', 'W3'),
    strand('a3', 'A3'),
  ],
}
const groups = (filtered: PairingRows) => [...new Set(filtered.left.map((row) => row.group))]

describe('filters of the pairing', () => {
  it('leave modules with a departure whole, on both sides', () => {
    const filtered = filteredRows(rows, { departures: true, musts: false, module: '' })
    expect(groups(filtered)).toEqual(['week2', 'week3'])
    expect(filtered.right.map((row) => row.id)).toEqual(['W2', 'A2', 'W3', 'A3', 'own'])
    expect(filtered.strands).toHaveLength(4)
  })
  it('leave only musts, which a missing part is', () => {
    expect(groups(filteredRows(rows, { departures: false, musts: true, module: '' }))).toEqual([
      'week2',
    ])
  })
  it('leave one module with what it is paired with', () => {
    const filtered = filteredRows(rows, { departures: false, musts: false, module: 'week1' })
    expect([filtered.left.map((row) => row.id), filtered.right.map((row) => row.id)]).toEqual([
      ['week1', 'a1'],
      ['W1', 'A1'],
    ])
  })
  it('leave everything without any', () => {
    expect(filteredRows(rows, { departures: false, musts: false, module: '' })).toBe(rows)
  })
})
