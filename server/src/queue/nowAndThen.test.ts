import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nowAndThen } from './nowAndThen.ts'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())
const log = { warn: vi.fn() }

describe('what is done now and then', () => {
  it('is done each time, also after it has failed, which is told', async () => {
    const work = vi.fn(() => Promise.reject(new Error('away')))
    const { stop } = nowAndThen('mail', 1000, work, log)
    await vi.advanceTimersByTimeAsync(3500)
    expect(work).toHaveBeenCalledTimes(3)
    expect(log.warn).toHaveBeenCalledWith({ err: expect.any(Error) }, 'mail')
    await stop()
    await vi.advanceTimersByTimeAsync(5000)
    expect(work).toHaveBeenCalledTimes(3)
  })
  it('is never done twice at once, and is waited for at the end', async () => {
    const ends: (() => void)[] = []
    const work = vi.fn(() => new Promise<void>((resolve) => ends.push(resolve)))
    const { stop } = nowAndThen('mail', 1000, work, log)
    await vi.advanceTimersByTimeAsync(4500)
    expect(work).toHaveBeenCalledTimes(1)
    ends[0]?.()
    await vi.advanceTimersByTimeAsync(1000)
    expect(work).toHaveBeenCalledTimes(2)
    const stopped = vi.fn()
    const stopping = stop().then(stopped)
    await vi.advanceTimersByTimeAsync(1000)
    expect(stopped).not.toHaveBeenCalled()
    ends[1]?.()
    await stopping
    expect(stopped).toHaveBeenCalledOnce()
  })
})
