import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Impact } from '@wickerframe/contract'
import { show } from '../../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../../testing/server.testing.ts'
import { ImpactOnCourses } from './ImpactOnCourses.tsx'

const course = (id: number, classSections = ['01']) => ({
  id,
  platformId: `p${id}`,
  code: 'NAV 110',
  title: 'Coastal Navigation',
  classSections,
})
const none = { count: 0, courses: [] }
const impact = (more: Partial<Impact> = {}): Impact => ({
  run: 9,
  state: 'done',
  revision: 4,
  by: 'designer@kestrelsound.example',
  at: '2026-09-16T09:00:00Z',
  all: 3,
  done: 3,
  failed: 0,
  secondsLeft: null,
  courses: 3,
  unread: 0,
  now: { ready: 2, openMusts: 1, openShoulds: 4 },
  after: { ready: 1, openMusts: 5, openShoulds: 4 },
  becomeReady: none,
  stopBeingReady: { count: 1, courses: [course(7)] },
  doNotFit: { ...none, reason: '' },
  requirements: [
    {
      rule: 'fill-in-unfilled',
      part: 'welcome',
      strength: 'must',
      title: 'Filled in',
      says: '“Welcome” still asks who you are.',
      mender: 'instructor',
      opens: 2,
      closes: 0,
    },
  ],
  rollout: {
    changed: 2,
    untouched: 0,
    leftOut: 0,
    checkedOnly: 1,
    undecided: 1,
    counts: { create: 4, keep: 9 },
  },
  ...more,
})
const showImpact = (held: Impact | null, more: Answers = {}, revision = 4) => {
  const asked = serve({ readImpact: held, ...more })
  return {
    ...show(<ImpactOnCourses template="harbour" revision={revision} waiting={false} />),
    asked,
  }
}
const row = async (name: string | RegExp): Promise<string> =>
  (await screen.findByRole('rowheader', { name })).closest('tr')?.textContent ?? ''

describe('what a draft would change for courses', () => {
  it('says what holding it against them does, before anything was held', async () => {
    showImpact(null)
    expect(await screen.findByText(/Nothing is written anywhere/)).toBeTruthy()
    expect(screen.queryByRole('table')).toBeNull()
  })
  it('holds the very draft that is looked at against them, and tells what came of it', async () => {
    let held: Impact | null = null
    const { asked, user } = showImpact(null, {
      readImpact: () => held,
      holdAgainstCourses: () => {
        held = impact()
        return { run: 9 }
      },
    })
    await user.click(await screen.findByRole('button', { name: 'Hold it against the courses' }))
    expect(await screen.findByText('Held against 3 courses')).toBeTruthy()
    expect(asked.find(({ route }) => route === 'holdAgainstCourses')?.body).toEqual({ revision: 4 })
  })
  it('tells how courses stand now and then, which stop, by what, and what a rollout would do', async () => {
    const { user } = showImpact(impact())
    expect(await row('now')).toContain('2 of 3')
    expect(await row('once it is rolled out')).toContain('1 of 3')
    expect(await row(/Welcome/)).toContain('2 courses')
    expect(screen.getByText('No course becomes ready')).toBeTruthy()
    await user.click(screen.getByText('1 course stops being ready'))
    expect(screen.getByRole('link', { name: 'NAV 110 Coastal Navigation' })).toBeTruthy()
    expect(
      screen.getByText(/^A rollout would change 2 courses: 4 parts created\./).textContent,
    ).toContain('In 1 course it meets what somebody wrote since')
  })
  it('tells how far it has come, and can be paused, and stopped', async () => {
    const { asked, user } = showImpact(
      impact({ state: 'running', done: 1, courses: 1, secondsLeft: 4.2 }),
      { pauseRun: {}, cancelRun: {} },
    )
    expect(await screen.findByText('Held against 1 of 3 courses, about 5 s left')).toBeTruthy()
    expect(screen.queryByRole('button', { name: /Hold it/ })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'pause' }))
    await user.click(screen.getByRole('button', { name: 'stop' }))
    expect(asked.filter(({ route }) => route !== 'readImpact').map(({ route }) => route)).toEqual([
      'pauseRun',
      'cancelRun',
    ])
  })
  it('says of an older draft that it is one, and holds nothing against it', async () => {
    showImpact(impact(), {}, 6)
    expect(await screen.findByText('As it was 2 edits ago:')).toBeTruthy()
    expect(screen.getByText(/changed since it was last held/)).toBeTruthy()
  })
  it('names the courses for which the draft cannot be worked out, and why', async () => {
    showImpact(
      impact({
        courses: 0,
        doNotFit: { count: 2, courses: [course(7), course(8)], reason: 'too many weeks' },
      }),
    )
    const said = await screen.findByText('It cannot be worked out for 2 courses: too many weeks')
    const list = said.closest('details')
    // Two that look the same are told apart by their numbers on the platform.
    expect(list && within(list).getByText(/p8/)).toBeTruthy()
    expect(screen.queryByText(/A rollout would/)).toBeNull()
  })
  it('shows why it was not held', async () => {
    const { user } = showImpact(null, {
      holdAgainstCourses: () => {
        throw new Refusal(409, 'no course that teaches is under this template yet')
      },
    })
    await user.click(await screen.findByRole('button', { name: /Hold it/ }))
    expect(await screen.findByText(/no course that teaches/)).toBeTruthy()
  })
})
