import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readJson } from './readJson.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

const depthOf = (value: unknown): number =>
  value !== null && typeof value === 'object'
    ? 1 + Math.max(0, ...Object.values(value).map(depthOf))
    : 0
const valuesOf = (value: unknown): number =>
  value !== null && typeof value === 'object'
    ? 1 + Object.values(value).reduce<number>((sum, inner) => sum + valuesOf(inner), 0)
    : 1
const codeOf = (text: string, depth = 64, values = 1000) => {
  const read = readJson(text, { depth, values })
  return read.ok ? 'read' : read.problems[0]?.code
}

describe('JSON that somebody else sent', () => {
  it('is read as JSON.parse reads it, whatever stands in its strings, up to its depth and not beyond', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 6 }), fc.boolean(), (value, spaced) => {
        const text = JSON.stringify(value, null, spaced ? 2 : 0)
        const [depth, values] = [depthOf(value), valuesOf(value)]
        // An empty list opens no value; a list of one value counts one for itself and none for a comma.
        expect(readJson(text, { depth, values: 2 * values })).toEqual({
          ok: true,
          value: JSON.parse(text),
        })
        if (depth > 0) expect(codeOf(text, depth - 1)).toBe('too-deep')
      }),
      propertyRuns(),
    )
  })
  it('is not read where it is no JSON', () => {
    for (const text of ['', '{', '"', '"\\', '[1,]', 'nul', '{"a":"\\"}'])
      expect([text, codeOf(text)]).toEqual([text, 'not-json'])
  })
  it('is refused before it is parsed: deep, wide, and with brackets that only stand in strings not refused', () => {
    expect(codeOf('['.repeat(2_000_000))).toBe('too-deep')
    expect(codeOf('{"a":'.repeat(400_000))).toBe('too-deep')
    expect(codeOf(`[${'1,'.repeat(1_000_000)}1]`)).toBe('too-many')
    expect(codeOf(JSON.stringify('[{,'.repeat(100_000)))).toBe('read')
    expect(codeOf(JSON.stringify('\\"[[[['.repeat(50_000)))).toBe('read')
  })
})
