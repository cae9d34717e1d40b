import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Me, TodayView } from '@wickerframe/contract'
import { exampleFacts } from '@wickerframe/core/testing'
import { people } from '../../testing/people.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../testing/server.testing.ts'
import { TodayScreen } from './TodayScreen.tsx'

const named = (id: number, title: string, classSections = ['01', '02']) => ({
  id,
  platformId: `kc-${id}`,
  code: 'NAV 110',
  title,
  classSections,
})
const taught = (id: number, title: string, classSections?: string[]) => ({
  ...named(id, title, classSections),
  owner: 'Ann Berg',
})
const none = { count: 0, lines: [] }
const view = (more: Partial<TodayView>): TodayView => ({
  today: '2026-09-16',
  term: exampleFacts().term,
  week: 3,
  weeks: 15,
  notReady: none,
  waiting: none,
  wideWaiversEnding: 0,
  comingDue: none,
  notBegun: none,
  noTemplate: { ...none, all: [] },
  duplicates: none,
  failedRollouts: [],
  mendFirst: [],
  checkedAsOf: '2026-09-16',
  ...more,
})
const notReady = (id: number, by: string | null, more = {}) => ({
  ...taught(id, 'Coastal Navigation'),
  openMusts: 2,
  first: 'Students cannot open “Week 6”.',
  by,
  mends: 0,
  toRaise: 0,
  ...more,
})
const action = {
  rule: 'must-part-hidden',
  part: 'welcome',
  title: 'What must be there can be seen',
  example: '“Welcome” is hidden.',
  mender: 'instructor' as const,
  byMachine: true,
  places: 3,
  count: 2,
  people: 2,
  courses: [named(1, 'Coastal Navigation'), named(2, 'Coastal Navigation')],
  effortMinutes: 3,
  becomeReady: 1,
}
const showToday = async (
  more: Partial<TodayView>,
  answers: Answers = {},
  me: Me = people.designer,
) => {
  const asked = serve({ today: view(more), checksPulse: { pulse: 'a' }, ...answers })
  const shown = show(<TodayScreen me={me} />, { address: '/today', path: '/*' })
  await screen.findByRole('heading', { level: 1, name: /someone today|needs you today/ })
  return { ...shown, asked }
}
const part = (title: string) => {
  const found = screen.getByRole('heading', { name: title }).closest('section')
  if (!found) throw new Error(`no part ${title}`)
  return within(found)
}

describe('today', () => {
  it('names the class sections, says by when, and leads to the act', async () => {
    await showToday({
      notReady: {
        count: 14,
        lines: [
          notReady(1, null, { mends: 2 }),
          notReady(2, '2026-10-05', { toRaise: 1 }),
          notReady(3, '2026-10-12'),
        ],
      },
    })
    const lines = part('Not ready').getAllByRole('listitem')
    expect(lines[0]?.textContent).toContain('class sections 01, 02')
    expect(
      lines.map((line) => /now|before \w+ \d+ [A-Z][a-z]+/.exec(line.textContent)?.[0]),
    ).toEqual(['now', 'before Mon 5 Oct', 'before Mon 12 Oct'])
    expect(
      lines
        .map((line) => within(line).getAllByRole('link').at(-1))
        .map((link) => [link?.textContent, link?.getAttribute('href')]),
    ).toEqual([
      ['mend 2', '/courses/1?strength=must'],
      ['raise 1', '/courses/2?strength=must'],
      ['follow it up', '/courses/3?strength=must'],
    ])
    expect(part('Not ready').getByRole('link', { name: '11 more in the weave' })).toBeTruthy()
  })
  it('tells courses that look the same apart by their number on the platform', async () => {
    await showToday({
      notBegun: { count: 2, lines: [taught(4, 'Tides'), taught(5, 'Tides')] },
      noTemplate: { count: 1, lines: [{ ...taught(6, 'Knots', []), state: 'shell' }], all: [6, 7] },
    })
    const text = part('Not begun')
      .getAllByRole('listitem')
      .map((line) => line.textContent)
    expect(text.every((line, i) => line.includes(`kc-${i + 4}`))).toBe(true)
    expect(
      part('Under no template')
        .getByRole('link', { name: 'Plan a rollout to it' })
        .getAttribute('href'),
    ).toBe('/rollouts/new?courses=6.7')
  })
  it('says of waivers for many courses how many end soon', async () => {
    await showToday({ wideWaiversEnding: 2 })
    expect(
      part('Waiting for you')
        .getByRole('link', { name: '2 waivers for many courses end within a fortnight' })
        .getAttribute('href'),
    ).toBe('/conformance/waivers')
  })
  it.each([
    ['waiver-asked', 'ann@x.example asks for a waiver:', 'decide on it', '/conformance/waivers'],
    ['answer', 'ann@x.example answered “On purpose” to:', 'read it there', '/courses/4'],
    [
      'promise-passed',
      'ann@x.example promised it for Mon 14 Sep, which has passed:',
      'ask again',
      '/courses/4',
    ],
    ['waiver-ends', 'A waiver ends Mon 14 Sep:', 'look at it', '/courses/4'],
  ] as const)('says who waits, and for what: %s', async (what, words, act, to) => {
    const line = {
      ...taught(4, 'Tides'),
      what,
      who: 'ann@x.example',
      about: '“Welcome” is hidden.',
      says: what === 'answer' ? 'On purpose' : '',
      on: '2026-09-14',
    }
    await showToday({ waiting: { count: 1, lines: [line] } })
    const [shown] = part('Waiting for you').getAllByRole('listitem')
    expect(shown?.textContent).toContain(`${words} “Welcome” is hidden.`)
    expect(part('Waiting for you').getByRole('link', { name: act }).getAttribute('href')).toBe(to)
  })
})

describe('mend first', () => {
  it('plans the mends it says, and shows the plan', async () => {
    const { user, asked, address } = await showToday(
      { mendFirst: [action] },
      { planMendsOf: { run: 9 } },
    )
    await user.click(screen.getByRole('button', { name: 'Plan 3 mends in 2 courses' }))
    expect(asked.at(-1)).toMatchObject({
      route: 'planMendsOf',
      body: { rule: 'must-part-hidden', part: 'welcome' },
    })
    expect(address()).toBe('/rollouts/9')
  })
  it('raises with those whose move it is what nobody but they can mend, and says what came of it', async () => {
    const { user } = await showToday(
      { mendFirst: [{ ...action, byMachine: false }] },
      { raiseEverywhere: { places: 3, courses: 2, people: 2, nobodys: 1 } },
    )
    expect(screen.queryByRole('button', { name: /^Plan/ })).toBeNull()
    const raise = screen.getByRole('button', { name: 'Raise it with 2 people' })
    await user.click(raise)
    expect((await screen.findByRole('status')).textContent).toBe(
      'Raised with 2 people in 2 courses. Nobody teaches 1 course.',
    )
    expect(raise.hasAttribute('disabled')).toBe(true)
  })
  it('keeps its press where the server refuses, and says why', async () => {
    const { user } = await showToday(
      { mendFirst: [action] },
      {
        planMendsOf: () => {
          throw new Refusal(409, 'It is mended already.')
        },
      },
    )
    await user.click(screen.getByRole('button', { name: /^Plan/ }))
    expect(await screen.findByText('It is mended already.')).toBeTruthy()
    expect(screen.getByRole('button', { name: /^Plan/ }).hasAttribute('disabled')).toBe(false)
  })
  it('offers a reviewer nothing to press, but shows which courses', async () => {
    await showToday({ mendFirst: [action] }, {}, people.reviewer)
    expect(screen.queryByRole('button', { name: /^(Plan|Raise)/ })).toBeNull()
    expect(part('Mend first').getAllByRole('link')[0]?.getAttribute('href')).toBe(
      '/courses/1?by=rule&strength=must',
    )
  })
})
