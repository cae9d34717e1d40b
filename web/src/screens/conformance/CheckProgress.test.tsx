import { screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { RunDetail, TaskState } from '@wickerframe/contract'
import { runDetail, runTask } from '../../testing/answers.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { CheckProgress } from './CheckProgress.tsx'

const showRun = (states: TaskState[], more: Partial<RunDetail> = {}) =>
  show(
    <CheckProgress
      detail={runDetail(
        states.map((state, i) => runTask(i + 1, { state })),
        { kind: 'check', ...more },
      )}
    />,
    { address: '/', path: '/' },
  )

describe('the check of many courses', () => {
  it('counts all of them, also where only some are told one by one', () => {
    const detail = runDetail([runTask(1)], { kind: 'check' })
    show(<CheckProgress detail={{ ...detail, counts: { ...detail.counts, waiting: 1999 } }} />, {
      address: '/',
      path: '/',
    })
    expect(screen.getByRole('status').textContent).toContain('Checking: 1 of 2000.')
  })
  it('says what it waits for, and leads to where it can be left', () => {
    showRun(['done', 'waiting', 'waiting'], {
      waitsFor: { message: 'the platform cannot be reached', courses: 2 },
    })
    expect(screen.getByRole('status').textContent).toContain(
      '2 courses wait: the platform cannot be reached.',
    )
    expect(screen.getByRole('link').getAttribute('href')).toBe('/rollouts/3')
  })
  it('says how many could not be checked once it is over, and leads to why', () => {
    showRun(['done', 'failed', 'failed'], { state: 'done' })
    expect(screen.getByRole('alert').textContent).toBe('2 courses could not be checked: see why')
    expect(screen.getByRole('link').getAttribute('href')).toBe('/rollouts/3')
  })
  it('says nothing once all is checked', () => {
    const { container } = showRun(['done', 'done'], { state: 'done' })
    expect(container.textContent).toBe('')
  })
})
