import { render } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { exampleTemplate } from '@wickerframe/core/testing'
import { HowShown } from './HowShown.tsx'

const said = (url: string, frameHosts?: string[]): string =>
  render(<HowShown url={url} template={{ ...exampleTemplate(), frameHosts }} />).container
    .textContent

describe('whether something is shown within a page', () => {
  it('is said while its address is typed, with the reason', () => {
    expect(said('')).toMatch(/^Where it is/)
    expect(said('https://film.example/1', ['film.example'])).toMatch(/^Shown within the page/)
    expect(said('https://film.example/1', ['other.example'])).toContain(
      'film.example is not among the hosts',
    )
    expect(said('https://film.example/1')).toContain('film.example is not among the hosts')
    expect(said('http://film.example/1', ['film.example'])).toContain('begin with https')
  })
})
