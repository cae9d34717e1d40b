import { useLayoutEffect } from 'react'
import { createRoot } from 'react-dom/client'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { screen } from '@testing-library/react'
import { show } from '../testing/screen.testing.tsx'
import { screenOnDemand } from './onDemand.tsx'

const Screen = () => <h1>Here</h1>

describe('a screen whose code comes when it is opened', () => {
  afterEach(() => {
    vi.unstubAllGlobals()
  })
  it('says that it is being read, and is there once it was', async () => {
    const OnDemand = screenOnDemand(async () => Screen)
    show(<OnDemand />)
    expect(screen.getByText(/Reading this screen/)).toBeTruthy()
    expect(await screen.findByRole('heading', { name: 'Here' })).toBeTruthy()
  })
  it('is there also when its code came between being drawn and asking for it', async () => {
    vi.stubGlobal('IS_REACT_ACT_ENVIRONMENT', false)
    let come: (code: typeof Screen) => void = () => undefined
    const OnDemand = screenOnDemand(() => new Promise<typeof Screen>((resolve) => (come = resolve)))
    void OnDemand.fetchCode()
    const Neighbour = () => {
      useLayoutEffect(() => come(Screen), [])
      return null
    }
    const place = document.body.appendChild(document.createElement('div'))
    const root = createRoot(place)
    root.render(
      <>
        <OnDemand />
        <Neighbour />
      </>,
    )
    await vi.waitFor(() => expect(place.textContent).toBe('Here'))
    root.unmount()
    place.remove()
  })
  it('says that its code did not come, and asks again when it is told to', async () => {
    const load = vi.fn<() => Promise<typeof Screen>>()
    load.mockRejectedValueOnce(new Error('away')).mockResolvedValue(Screen)
    const OnDemand = screenOnDemand(load)
    const { user } = show(<OnDemand />)
    await user.click(await screen.findByRole('button', { name: 'Try again' }))
    expect(await screen.findByRole('heading', { name: 'Here' })).toBeTruthy()
  })
  it('asks again by itself once the device is on the network', async () => {
    const load = vi.fn<() => Promise<typeof Screen>>()
    load.mockRejectedValueOnce(new Error('away')).mockResolvedValue(Screen)
    const OnDemand = screenOnDemand(load)
    show(<OnDemand />)
    await screen.findByRole('button', { name: 'Try again' })
    window.dispatchEvent(new Event('online'))
    expect(await screen.findByRole('heading', { name: 'Here' })).toBeTruthy()
  })
  it('asks once more where what was on its way fails after the network came back', async () => {
    // As a browser does it: who asks while a request is under way gets what becomes of that.
    let fail: () => void = () => undefined
    const first = new Promise<typeof Screen>((_, reject) => {
      fail = () => reject(new Error('away'))
    })
    let isOver = false
    const load = vi.fn(() => (isOver ? Promise.resolve(Screen) : first))
    const OnDemand = screenOnDemand(load)
    show(<OnDemand />)
    window.dispatchEvent(new Event('online'))
    expect(load).toHaveBeenCalledTimes(2)
    isOver = true
    fail()
    expect(await screen.findByRole('heading', { name: 'Here' })).toBeTruthy()
  })
})
