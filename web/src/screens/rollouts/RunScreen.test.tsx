import { screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Me, RunDetail, TaskState } from '@wickerframe/contract'
import { runDetail, runTask } from '../../testing/answers.testing.ts'
import { people } from '../../testing/people.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../testing/server.testing.ts'
import { RunScreen } from './RunScreen.tsx'

const showRun = (detail: RunDetail, me: Me = people.designer, more: Answers = {}) => {
  const asked = serve({ readRun: detail, listCourses: [], ...more })
  const shown = show(<RunScreen me={me} />, { address: '/rollouts/3', path: '/rollouts/:run' })
  return { ...shown, asked }
}
const tasks = (...states: TaskState[]) => states.map((state, i) => runTask(i + 1, { state }))
const buttons = async (): Promise<string[]> => {
  await screen.findByRole('heading', { name: 'New names for the weeks' })
  return screen
    .queryAllByRole('button')
    .map(({ textContent }) => textContent)
    .filter((text) => /^(Approve|Drop|Plan the way|Pause|Go on|Leave out|Try)/.test(text))
}

describe('a run', () => {
  it.each<[RunDetail['state'], TaskState[], string[]]>([
    ['planned', ['planned'], ['Approve and run', 'Drop the plan']],
    ['running', ['done', 'waiting'], ['Pause', 'Leave out the rest']],
    ['paused', ['done', 'waiting'], ['Go on', 'Leave out the rest']],
    ['done', ['done', 'failed'], ['Plan the way back', 'Try 1 failed again']],
    ['done', ['done'], ['Plan the way back']],
    ['cancelled', ['cancelled'], []],
  ])('that is %s offers what can be done with it, and no more', async (state, states, offered) => {
    showRun(runDetail(tasks(...states), { state }))
    expect(await buttons()).toEqual(offered)
  })
  it('offers somebody who may only look nothing at all', async () => {
    showRun(runDetail(tasks('planned'), { state: 'planned' }), people.reviewer)
    expect(await buttons()).toEqual([])
  })
  it('tells how far it is, what failed first, and how long it will take', async () => {
    showRun(
      runDetail(tasks('done', 'done', 'failed', 'waiting'), { perSecond: 2, secondsLeft: 200 }),
    )
    const status = (await screen.findByRole('progressbar')).parentElement
    expect(status?.textContent).toBe(
      '3 of 4 courses: 1 failed, 1 waiting, 2 done. 2.0 courses a second, about 4 min left',
    )
    expect(screen.getByRole('progressbar').getAttribute('value')).toBe('3')
  })
  it('says why nothing goes on, also while it is planned', async () => {
    showRun(
      runDetail(tasks('to-plan', 'to-plan'), {
        state: 'planning',
        waitsFor: { message: 'the platform cannot be reached', courses: 2 },
      }),
    )
    const status = (await screen.findByRole('progressbar')).parentElement
    expect(status?.textContent).toContain(
      '2 courses wait: the platform cannot be reached. It is tried again by itself.',
    )
  })
  it('is approved once, and read again', async () => {
    const { user, asked } = showRun(
      runDetail(tasks('planned'), { state: 'planned' }),
      people.designer,
      { approveRun: {} },
    )
    await user.click(await screen.findByRole('button', { name: 'Approve and run' }))
    expect(asked.filter(({ route }) => route === 'approveRun')).toHaveLength(1)
    expect(asked.filter(({ route }) => route === 'readRun').length).toBeGreaterThan(1)
  })
  it('says why it was not approved, and still offers it', async () => {
    const { user } = showRun(runDetail(tasks('planned'), { state: 'planned' }), people.designer, {
      approveRun: () => {
        throw new Refusal(409, 'The plan of NAV 101 is another by now.')
      },
    })
    await user.click(await screen.findByRole('button', { name: 'Approve and run' }))
    expect(await screen.findByText('The plan of NAV 101 is another by now.')).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Approve and run' })).toBeTruthy()
  })
  it('that gave names can be planned backwards, for the courses that have them', async () => {
    const rename = { what: 'module' as const, id: 'm1', was: 'wk 1', name: 'Week 1' }
    const { user, asked, address } = showRun(
      runDetail(
        [runTask(1, { renames: [rename] }), runTask(2, { state: 'failed', renames: [rename] })],
        { state: 'done' },
      ),
      people.designer,
      { planRenames: { run: 9 } },
    )
    await user.click(await screen.findByRole('button', { name: 'Plan the way back' }))
    expect(asked.find(({ route }) => route === 'planRenames')).toMatchObject({
      body: { names: [{ course: 1, what: 'module', id: 'm1', was: 'Week 1', name: 'wk 1' }] },
    })
    expect(address()).toBe('/rollouts/9')
  })
  it('that does not exist says so', async () => {
    serve({
      readRun: () => {
        throw new Refusal(404, 'There is no run 3.')
      },
    })
    show(<RunScreen me={people.designer} />, { address: '/rollouts/3', path: '/rollouts/:run' })
    expect(await screen.findByText('There is no run 3.')).toBeTruthy()
  })
})
