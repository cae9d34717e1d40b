import { cleanup, configure } from '@testing-library/react'
import { afterEach, beforeEach, expect, vi } from 'vitest'
import { takeMisfits } from './server.testing.ts'

// Working out what is hidden costs most of a test's time, since no style sheet is there.
configure({ defaultHidden: true, asyncUtilTimeout: 20_000 })

// What browsers have and the DOM of tests does not: sizes, so that long lists draw their first rows, and a few listeners.
const screenWidth = 1280
const screenHeight = 800

Object.defineProperties(HTMLElement.prototype, {
  offsetWidth: { configurable: true, get: () => screenWidth },
  offsetHeight: { configurable: true, get: () => screenHeight },
  clientWidth: { configurable: true, get: () => screenWidth },
  clientHeight: { configurable: true, get: () => screenHeight },
})
HTMLElement.prototype.scrollIntoView = () => undefined
HTMLElement.prototype.scrollTo = () => undefined
HTMLElement.prototype.hasPointerCapture = () => false
HTMLElement.prototype.setPointerCapture = () => undefined
HTMLElement.prototype.releasePointerCapture = () => undefined
Range.prototype.getBoundingClientRect = () => new DOMRect()
Range.prototype.getClientRects = () => Object.assign([], { item: () => null })

class NeverResized implements ResizeObserver {
  observe = () => undefined
  unobserve = () => undefined
  disconnect = () => undefined
}
vi.stubGlobal('ResizeObserver', NeverResized)
vi.stubGlobal('CSS', { escape: (text: string) => text.replace(/[^\w-]/g, '\\$&') })
/** A stream of events on which nothing ever comes. */
class SilentEvents {
  addEventListener = () => undefined
  removeEventListener = () => undefined
  close = () => undefined
}
vi.stubGlobal('EventSource', SilentEvents)
vi.stubGlobal('matchMedia', (query: string) => ({
  matches: false,
  media: query,
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
}))

beforeEach(() => {
  // A test says what the server answers; whatever else is asked for fails it.
  vi.stubGlobal('fetch', (input: RequestInfo | URL) =>
    Promise.reject(new Error(`no answer was given for ${String(input)}`)),
  )
})
afterEach(() => {
  cleanup()
  // Files share a window: what one leaves there would be found by the next.
  document.body.replaceChildren()
  localStorage.clear()
  sessionStorage.clear()
  expect(takeMisfits()).toEqual([])
})
