import { act, screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { exampleFacts } from '@wickerframe/core/testing'
import { routeNames } from '@wickerframe/contract'
import { may, roles } from '@wickerframe/contract/capabilities'
import { NotForYou } from '../shell/NotForYou.tsx'
import { people } from '../testing/people.testing.ts'
import { show } from '../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../testing/server.testing.ts'
import { screens, type Screen } from './screens.tsx'

class NoWorker {
  addEventListener = () => undefined
  postMessage = () => undefined
  terminate = () => undefined
}
beforeEach(() => {
  vi.stubGlobal('Worker', NoWorker)
})

/** An address of a screen, with something for each of its parameters. */
const addressOf = ({ path }: Screen): string =>
  path
    .replace(':key', 'harbour')
    .replace(':part', 'welcome')
    .replace(/:(id|run)/, '7')
    .replace(':code', 'autumn-2026')
const open = ({ path, show: draw, needs }: Screen, role: (typeof roles)[number]) =>
  show(
    may(people[role], needs) ? (
      draw(people[role])
    ) : (
      <NotForYou me={people[role]} needs={needs} home="/courses" />
    ),
    { address: addressOf({ path, show: draw, needs }), path },
  )
const settled = async (): Promise<string> => {
  await screen.findByRole('heading', { level: 1 })
  await waitFor(() => expect(screen.queryByText(/^Reading .* …$/)).toBeNull())
  await act(() => Promise.resolve())
  return document.body.textContent
}
const nonsense = /undefined|\[object|NaN|Infinity|null\b/
const asksNothing = new Set(['/templates/new', '/rollouts/next-term', '/names'])

const failing = (problem: () => never): Answers =>
  Object.fromEntries(routeNames.map((name) => [name, problem])) as Answers

describe.each(screens.map((each) => [each.path, each] as const))('the screen %s', (_, each) => {
  it('says in words that the server cannot answer, when to come back, and stays usable', async () => {
    serve(
      failing(() => {
        throw new Refusal(503, 'The database is away. Try again in a minute.')
      }),
    )
    open(each, 'administrator')
    const said = await settled()
    if (may(people.administrator, each.needs) && !asksNothing.has(each.path))
      expect(said).toContain('The database is away.')
    expect(said).not.toMatch(nonsense)
  })
  it('says in words that the server cannot be reached', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')))
    open(each, 'designer')
    const said = await settled()
    if (may(people.designer, each.needs) && !asksNothing.has(each.path))
      expect(said).toContain('The server cannot be reached.')
    expect(said).not.toMatch(/Failed to fetch|TypeError/)
  })
  it('says to everybody else for whom it is, with a way back', async () => {
    serve(
      failing(() => {
        throw new Refusal(403, 'not yours')
      }),
    )
    for (const role of roles.filter((candidate) => !may(people[candidate], each.needs))) {
      const { unmount } = open(each, role)
      expect((await screen.findByRole('heading', { level: 1 })).textContent).toMatch(
        /^This is for /,
      )
      expect(screen.getByRole('link', { name: /^Back to/ }).getAttribute('href')).toBe('/courses')
      expect(screen.queryByRole('button')).toBeNull()
      unmount()
    }
  })
})

const { term } = exampleFacts()
const noLines = { count: 0, lines: [] }
const nothing: Answers = {
  listTemplates: [],
  listCourses: [],
  listRollouts: [],
  listTerms: [],
  listLibrary: [],
  listMessages: [],
  listStandingRules: { rules: [], fits: [], none: [], several: [] },
  checksPulse: { pulse: 'a' },
  today: {
    today: '2026-09-16',
    term,
    week: 3,
    weeks: 15,
    notReady: noLines,
    notBegun: noLines,
    noTemplate: { ...noLines, all: [] },
    waiting: noLines,
    wideWaiversEnding: 0,
    duplicates: noLines,
    failedRollouts: [],
    mendFirst: [],
    comingDue: noLines,
    checkedAsOf: null,
  },
  conformance: {
    asOf: '2026-09-16',
    groups: [],
    rows: [],
    unchecked: 0,
    checkedAgain: 0,
    mendFirst: [],
    totals: { courses: 0, ready: 0, openMusts: 0, openShoulds: 0, cannotTell: 0 },
  },
}

describe('a college that has nothing yet', () => {
  it.each([
    ['/today', /Nothing needs you today/],
    ['/templates', /template/i],
    ['/courses', /course/i],
    ['/rollouts', /rollout/i],
    ['/terms', /term/i],
    ['/library', /house text/i],
    ['/conformance', /course/i],
  ])('sees on %s what belongs there, and what to do', async (path, teaches) => {
    serve(nothing)
    const each = screens.find((candidate) => candidate.path === path)
    if (!each) throw new Error(`no screen ${path}`)
    open(each, 'designer')
    const said = await settled()
    expect(said).toMatch(teaches)
    expect(said).not.toMatch(nonsense)
    expect(screen.queryByRole('alert')).toBeNull()
  })
})
