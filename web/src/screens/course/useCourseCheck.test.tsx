import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { RunDetail } from '@wickerframe/contract'
import { runDetail, runTask } from '../../testing/answers.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { serve } from '../../testing/server.testing.ts'
import { useCourseCheck } from './useCourseCheck.ts'

const Probe = () => {
  const check = useCourseCheck('1', '2026-09-16')
  return (
    <>
      <button onClick={() => check.begin.mutate()}>{check.isRunning ? 'reads' : 'read'}</button>
      <p>
        {check.waits}
        {check.failure}
      </p>
    </>
  )
}
/** Begins it on the page; the run has come as far as this. */
const begun = async (detail: RunDetail) => {
  const asked = serve({ checkCourse: { run: 3 }, readRun: detail })
  const { user, container } = show(<Probe />, { address: '/', path: '/' })
  await user.click(screen.getByRole('button'))
  await waitFor(() => expect(asked.map(({ route }) => route)).toContain('readRun'))
  return container
}
const one = (task: Parameters<typeof runTask>[1], more: Partial<RunDetail> = {}) =>
  runDetail([runTask(1, task)], { kind: 'check', ...more })

describe('reading one course', () => {
  it.each<[string, RunDetail, string, string]>([
    [
      'says what it waits for, and goes on',
      one(
        { state: 'waiting' },
        { waitsFor: { courses: 1, message: 'the platform cannot be reached' } },
      ),
      'reads',
      'It waits: the platform cannot be reached. It is tried again by itself.',
    ],
    [
      'says why it failed, and can be begun again',
      one({ state: 'failed', message: 'the platform has no course c1' }, { state: 'done' }),
      'read',
      'the platform has no course c1',
    ],
    [
      'that somebody left out can be begun again',
      one({ state: 'cancelled' }, { state: 'cancelled' }),
      'read',
      '',
    ],
  ])('%s', async (_, detail, button, words) => {
    const container = await begun(detail)
    await waitFor(() =>
      expect(
        ['button', 'p'].map((element) => container.querySelector(element)?.textContent),
      ).toEqual([button, words]),
    )
  })
})
