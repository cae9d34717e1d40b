import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { institutionClock } from './clocks.ts'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

describe('the institution’s clock', () => {
  it('has its own date: an evening in Halifax is today there, not tomorrow', () => {
    vi.setSystemTime('2026-09-17T01:30:00Z')
    expect(institutionClock('America/Halifax', 0).today()).toBe('2026-09-16')
    expect(institutionClock('UTC', 0).today()).toBe('2026-09-17')
    expect(institutionClock('Pacific/Auckland', 0).today()).toBe('2026-09-17')
    vi.setSystemTime('2026-12-31T11:30:00Z')
    expect(institutionClock('Pacific/Auckland', 0).today()).toBe('2027-01-01')
  })
  it('is moved by a demonstration, and goes on from there', () => {
    vi.setSystemTime('2031-02-03T04:05:06Z')
    const offset = (Date.parse('2026-09-16T12:00:00Z') - Date.now()) / 1000
    const clock = institutionClock('America/Halifax', offset)
    expect([clock.today(), clock.now()]).toEqual(['2026-09-16', '2026-09-16T12:00:00.000Z'])
    vi.advanceTimersByTime(14 * 3600 * 1000)
    expect(clock.today()).toBe('2026-09-16')
    vi.advanceTimersByTime(2 * 3600 * 1000)
    expect(clock.today()).toBe('2026-09-17')
  })
})
