import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { keepLease } from './lease.ts'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

describe('a lease of thirty seconds', () => {
  it('is held as long as it is renewed', async () => {
    const renew = vi.fn(async () => true)
    const { lost, letGo } = keepLease(30, renew)
    await vi.advanceTimersByTimeAsync(120_000)
    expect(renew).toHaveBeenCalledTimes(12)
    expect(lost.aborted).toBe(false)
    letGo()
  })
  it('is lost at once when somebody else holds it', async () => {
    const { lost, letGo } = keepLease(30, async () => false)
    await vi.advanceTimersByTimeAsync(9_999)
    expect(lost.aborted).toBe(false)
    await vi.advanceTimersByTimeAsync(1)
    expect(lost.aborted).toBe(true)
    letGo()
  })
  it('outlives a database that is away for less than its length', async () => {
    const answers = [false, false, true, false, false, true]
    const { lost, letGo } = keepLease(30, async () => {
      if (answers.shift()) return true
      throw new Error('away')
    })
    await vi.advanceTimersByTimeAsync(60_000)
    expect(lost.aborted).toBe(false)
    letGo()
  })
  it('is lost when no renewal came through for its whole length', async () => {
    const { lost, letGo } = keepLease(30, () => Promise.reject(new Error('away')))
    await vi.advanceTimersByTimeAsync(20_000)
    expect(lost.aborted).toBe(false)
    await vi.advanceTimersByTimeAsync(10_000)
    expect(lost.aborted).toBe(true)
    letGo()
  })
  it('is asked for no more once it is let go', async () => {
    const renew = vi.fn(async () => true)
    keepLease(30, renew).letGo()
    await vi.advanceTimersByTimeAsync(120_000)
    expect(renew).not.toHaveBeenCalled()
  })
})
