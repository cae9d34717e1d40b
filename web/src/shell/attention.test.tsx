import { afterEach, expect, it, vi } from 'vitest'
import { isAttended, watchAttention } from './attention.ts'

afterEach(() => vi.useRealTimers())

it('a page is attended while somebody touches it, and ten minutes after', () => {
  vi.useFakeTimers({ now: new Date('2026-09-16T12:00:00Z') })
  watchAttention()
  expect(isAttended()).toBe(true)
  vi.advanceTimersByTime(9 * 60_000)
  expect(isAttended()).toBe(true)
  vi.advanceTimersByTime(2 * 60_000)
  expect(isAttended()).toBe(false)
  window.dispatchEvent(new Event('pointermove'))
  expect(isAttended()).toBe(true)
})
it('a page that is not seen is attended by nobody', () => {
  watchAttention()
  const visible = vi.spyOn(document, 'visibilityState', 'get').mockReturnValue('hidden')
  expect(isAttended()).toBe(false)
  visible.mockRestore()
  expect(isAttended()).toBe(true)
})
