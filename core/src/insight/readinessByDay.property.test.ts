import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays } from '../calendar/index.ts'
import { daysToReady, readinessByDay, type ReadinessChange } from './readinessByDay.ts'

const first = '2026-08-31'
const change = fc.record({
  day: fc.integer({ min: -20, max: 40 }).map((days) => addDays(first, days)),
  readiness: fc.constantFrom('ready', 'not-ready', 'ready-as-far-as-seen' as const),
  openMusts: fc.nat(9),
  openShoulds: fc.nat(9),
})
const changes = fc
  .uniqueArray(change, { selector: ({ day }) => day, maxLength: 8 })
  .map((list) => list.toSorted((a, b) => (a.day < b.day ? -1 : 1)) as ReadinessChange[])

const standsOn = (of: readonly ReadinessChange[], day: string) =>
  of.findLast((one) => one.day <= day)

describe('how courses stood day by day', () => {
  it('is on each day what each course was last told to be', () => {
    fc.assert(
      fc.property(fc.array(changes, { maxLength: 6 }), fc.nat(30), (courses, length) => {
        const until = addDays(first, length)
        const days = readinessByDay(courses, first, until)
        expect(days.map(({ day }) => day)).toEqual(
          Array.from({ length: length + 1 }, (_, i) => addDays(first, i)),
        )
        for (const { day, ...counted } of days) {
          const stood = courses.flatMap((of) => standsOn(of, day) ?? [])
          const are = (readiness: ReadinessChange['readiness']) =>
            stood.filter((one) => one.readiness === readiness).length
          expect(counted).toEqual({
            ready: are('ready'),
            asFarAsSeen: are('ready-as-far-as-seen'),
            notReady: are('not-ready'),
            openMusts: stood.reduce((sum, one) => sum + one.openMusts, 0),
          })
        }
      }),
    )
  })
  it('counts days to ready from the opening, where it was not ready then and ever was', () => {
    fc.assert(
      fc.property(changes, (of) => {
        const days = daysToReady(of, first)
        const isReady = (day: string) =>
          (standsOn(of, day)?.readiness ?? 'not-ready') !== 'not-ready'
        if (days === null)
          for (let i = 0; i <= 45; i += 1) expect(isReady(addDays(first, i))).toBe(false)
        else {
          expect(isReady(addDays(first, days))).toBe(true)
          for (let i = 0; i < days; i += 1) expect(isReady(addDays(first, i))).toBe(false)
        }
      }),
    )
  })
})
