import { render, screen, within } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import type { Remark } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import type { FirstCourse } from '../firstCourse.ts'
import { ProofreadingView } from './ProofreadingView.tsx'

const remark = (message: string, more: Partial<Remark> = {}): Remark => ({
  check: 'x',
  severity: 'warning',
  part: 'welcome',
  block: null,
  message,
  ...more,
})
const show = (remarks: readonly Remark[], firstCourse: Partial<FirstCourse>) => {
  const onOpen = vi.fn<(part: string) => void>()
  render(
    <ProofreadingView
      remarks={remarks}
      firstCourse={{ remarks: [], kinds: 2, state: 'read', ...firstCourse }}
      template={exampleTemplate()}
      nameOf={(key) => `the page ${key}`}
      onOpen={onOpen}
    />,
  )
  return { user: userEvent.setup(), onOpen }
}
const first = () => within(screen.getByRole('region', { name: 'As the first course' }))

describe('proofreading', () => {
  it('leads from what the first course would be told to its place; it stops no release', async () => {
    const { user, onOpen } = show([], { remarks: [remark('It still says “Lorem”.')] })
    expect(screen.getByText('No errors: the template can be released.')).toBeTruthy()
    expect(first().getByRole('status').textContent).toContain(
      'Worked out for 2 kinds of course, deployed, filled in perfectly and checked for every day of the term: 1 thing would be told that is the template’s own.',
    )
    await user.click(first().getByRole('button', { name: 'the page welcome' }))
    expect(onOpen).toHaveBeenCalledWith('welcome')
  })
  it.each<[FirstCourse['state'], RegExp]>([
    ['reading', /^Being read as the first course would: 2 kinds of course so far/],
    ['read', /nothing would be told that is not the instructor’s to do\.$/],
    ['failed', /did not end; load the page again/],
  ])('says how far it is: %s', (state, words) => {
    show([], { state })
    expect(first().getByRole('status').textContent).toMatch(words)
  })
  it('puts errors before all, and says that they stop the release', () => {
    show([remark('A look.'), remark('Wrong.', { severity: 'error' })], {})
    expect(screen.getByText(/^1 error must be mended/)).toBeTruthy()
    const headings = screen.getAllByRole('heading').map(({ textContent }) => textContent)
    expect(headings).toEqual(['Errors', 'Warnings', 'As the first course would read it'])
  })
})
