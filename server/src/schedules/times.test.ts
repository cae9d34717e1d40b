import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { localDateOf, localTimeOf } from '@wickerframe/core'
import { nextTime, patternProblem } from './times.ts'

const zones = ['America/Halifax', 'Pacific/Auckland', 'Europe/Paris', 'Asia/Kolkata', 'UTC']
const day = 86_400_000

describe('the next time of a pattern', () => {
  // By the zone’s civil time: in Halifax it is UTC−3 in summer and UTC−4 in winter (IANA time zone database).
  it.each([
    ['0 6 * * 1-5', '2026-09-18T12:00:00Z', '2026-09-21T09:00:00.000Z'],
    ['0 6 * * *', '2026-10-31T12:00:00Z', '2026-11-01T10:00:00.000Z'],
    ['0 6 * * *', '2027-03-13T12:00:00Z', '2027-03-14T09:00:00.000Z'],
    ['0 0 1 * *', '2026-09-18T12:00:00Z', '2026-10-01T03:00:00.000Z'],
  ])('%s after %s is %s in Halifax', (pattern, after, next) => {
    expect(nextTime(pattern, 'America/Halifax', after)).toBe(next)
  })
  it('is none, where there is none any more', () => {
    expect(nextTime('0 6 31 2 *', 'UTC', '2026-09-18T12:00:00Z')).toBeNull()
  })
  it('comes after the instant, within two days, at the hour that was asked, on whatever day of any zone', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 23 }),
        fc.integer({ min: 0, max: 59 }),
        fc.constantFrom(...zones),
        fc.integer({ min: Date.parse('2026-01-01'), max: Date.parse('2030-01-01') }),
        (hour, minute, zone, at) => {
          const after = new Date(at).toISOString()
          const next = nextTime(`${minute} ${hour} * * *`, zone, after)
          if (next === null) throw new Error('every day has one')
          expect(next > after).toBe(true)
          expect(Date.parse(next) - at).toBeLessThanOrEqual(2 * day)
          expect(localTimeOf(next, zone).slice(0, 5)).toBe(
            `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`,
          )
          // Asked again from there it is the day after.
          const then = nextTime(`${minute} ${hour} * * *`, zone, next)
          expect(then !== null && localDateOf(then, zone) > localDateOf(next, zone)).toBe(true)
        },
      ),
      { numRuns: 200, seed: 2026 },
    )
  })
})

describe('a pattern', () => {
  it.each([['0 6 * * *'], ['*/15 * * * *'], ['0 6,18 * * 1-5'], ['30 5 1 1 *']])(
    '%s can be a schedule',
    (pattern) => {
      expect(patternProblem(pattern, 'America/Halifax', '2026-09-16T12:00:00Z')).toBeNull()
    },
  )
  it.each([
    ['* * * * *', /every 1 minutes; expected at least 15/],
    ['0,5 6 * * *', /every 5 minutes/],
    ['61 6 * * *', /expected minute, hour/],
    ['0 6 * * mornings', /expected minute, hour/],
    ['0 6 31 2 *', /never comes/],
    ['0 0 6 * * *', /expected minute, hour/],
  ])('%s cannot, and it is said why', (pattern, says) => {
    expect(patternProblem(pattern, 'America/Halifax', '2026-09-16T12:00:00Z')).toMatch(says)
  })
})
