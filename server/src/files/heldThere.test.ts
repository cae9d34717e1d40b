import { describe, expect, it } from 'vitest'
import { heldMemory } from './heldThere.ts'

describe('what a platform holds', () => {
  it('is asked for again after ten minutes: it may have been brought back as it stood before', () => {
    let now = 1000
    const held = heldMemory(() => now)
    expect(held.has('quay.svg')).toBe(false)
    held.add('quay.svg')
    now += 599_999
    expect([held.has('quay.svg'), held.has('buoy.svg')]).toEqual([true, false])
    now += 1
    expect(held.has('quay.svg')).toBe(false)
    held.add('quay.svg')
    expect(held.has('quay.svg')).toBe(true)
  })
  it('is forgotten at once where the platform says that it is not there', () => {
    const held = heldMemory()
    held.add('quay.svg')
    held.forget()
    expect(held.has('quay.svg')).toBe(false)
  })
  it('is remembered of a bounded number of things', () => {
    const held = heldMemory(() => 0)
    for (let n = 0; n <= 5000; n++) held.add(`${n}`)
    expect([held.has('4999'), held.has('5000')]).toEqual([false, true])
  })
})
