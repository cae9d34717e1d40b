import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { followRun } from './followRun.ts'

/** A stream as a browser has it, with what comes on it by hand. */
class Stream extends EventTarget {
  static readonly CONNECTING = 0
  static readonly CLOSED = 2
  readyState = 1
  readonly address: string
  constructor(address: string) {
    super()
    this.address = address
    asked.push(this)
  }
  close() {
    this.readyState = Stream.CLOSED
  }
  comes(event: string, readyState = this.readyState) {
    this.readyState = readyState
    this.dispatchEvent(new Event(event))
  }
}
let asked: Stream[] = []
const changed = vi.fn()
beforeEach(() => {
  asked = []
  changed.mockClear()
  vi.useFakeTimers()
  vi.stubGlobal('EventSource', Stream)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('following a run', () => {
  it('tells what is said on its stream', () => {
    followRun(5, changed)
    asked[0]?.comes('changed')
    expect([asked[0]?.address, changed.mock.calls.length]).toEqual(['/api/runs/5/events', 1])
  })
  it('is left to the browser where the stream broke off', () => {
    followRun(5, changed)
    asked[0]?.comes('error', Stream.CONNECTING)
    vi.advanceTimersByTime(60_000)
    expect([asked.length, changed.mock.calls.length]).toEqual([1, 0])
  })
  it('looks every few seconds where it is refused, and follows again once it is not', () => {
    followRun(5, changed)
    for (const times of [1, 2, 3]) {
      asked.at(-1)?.comes('error', Stream.CLOSED)
      expect(changed).toHaveBeenCalledTimes(times)
      vi.advanceTimersByTime(6000)
      expect(asked).toHaveLength(times + 1)
    }
    asked.at(-1)?.comes('changed')
    expect(changed).toHaveBeenCalledTimes(4)
  })
  it('ends when nobody looks any more, also between two tries', () => {
    const end = followRun(5, changed)
    asked[0]?.comes('error', Stream.CLOSED)
    end()
    vi.advanceTimersByTime(60_000)
    expect([asked.length, changed.mock.calls.length]).toEqual([1, 1])
    followRun(6, changed)()
    expect(asked[1]?.readyState).toBe(Stream.CLOSED)
  })
})
