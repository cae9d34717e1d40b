import { screen, waitFor, within } from '@testing-library/react'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Conformance, ConformanceRow, Me } from '@wickerframe/contract'
import { conformanceRow } from '../../testing/answers.testing.ts'
import { people } from '../../testing/people.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { serve, type Answers } from '../../testing/server.testing.ts'
import { ConformanceScreen } from './ConformanceScreen.tsx'

beforeAll(() => {
  // A DOM without layout shows no line at all: each has a place to stand in.
  Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { configurable: true, value: 600 })
  Object.defineProperty(HTMLElement.prototype, 'offsetWidth', { configurable: true, value: 900 })
})

const college = (rows: ConformanceRow[]): Conformance => ({
  asOf: '2026-09-16',
  groups: [
    {
      key: 'week:1',
      title: 'Week 1',
      columns: [
        { key: 'week:1/overview', title: 'overview' },
        { key: 'week:1/quiz', title: 'quiz' },
      ],
    },
  ],
  rows,
  unchecked: 0,
  checkedAgain: 0,
  mendFirst: [],
  totals: { courses: rows.length, ready: 1, openMusts: 1, openShoulds: 0, cannotTell: 0 },
})
const few = [
  conformanceRow(1, { openMusts: 1, readiness: 'not-ready', strands: 'mX' }),
  conformanceRow(2),
  conformanceRow(3, { department: 'SAF', code: 'SAF 101' }),
]
const open = (rows = few, answers: Answers = {}, me: Me = people.designer, query = '') => {
  const asked = serve({
    checksPulse: { pulse: 'a' },
    conformance: college(rows),
    crossing: {
      findings: [
        {
          fingerprints: ['f1', 'f2'],
          title: 'A due date',
          strength: 'must',
          message: '“Quiz 1” has no due date.',
          evidence: [],
          places: 2,
        },
      ],
    },
    followUp: {},
    ...answers,
  })
  const shown = show(<ConformanceScreen me={me} />, {
    address: `/conformance${query}`,
    path: '/conformance',
  })
  return { ...shown, asked }
}
const names = () => screen.queryAllByRole('rowheader').map(({ textContent }) => textContent)

describe('the whole college', () => {
  it('of few courses is open at once, each under its band', async () => {
    open()
    await screen.findByRole('treegrid')
    expect(names()).toEqual([
      expect.stringContaining('NAV'),
      expect.stringContaining('NAV 101'),
      expect.stringContaining('NAV 102'),
      expect.stringContaining('SAF'),
      expect.stringContaining('SAF 101'),
    ])
  })
  it('of many courses is looked at from afar first; a band is opened and closed by pressing it', async () => {
    const many = Array.from({ length: 61 }, (_, i) =>
      conformanceRow(i, {
        department: i < 3 ? 'SAF' : 'NAV',
        ...(i < 3 ? { code: 'SAF 200' } : {}),
      }),
    )
    const { user } = open(many)
    await screen.findByRole('treegrid')
    expect(names()).toHaveLength(2)
    await user.click(screen.getByText('3 of 3 ready'))
    await waitFor(() => expect(names()).toHaveLength(5))
    await user.click(screen.getByText('3 of 3 ready'))
    await waitFor(() => expect(names()).toHaveLength(2))
  })
  it('is walked by arrows from one stop of the Tab key, and says what stands there', async () => {
    const { user } = open()
    const grid = await screen.findByRole('treegrid')
    grid.focus()
    await user.keyboard('{ArrowDown}{ArrowRight}')
    const at = () => within(grid).getByRole('gridcell')
    expect(at().textContent).toBe('NAV 101 Navigation 1: Week 1, quiz: open must')
    expect(grid.getAttribute('aria-activedescendant')).toBe(at().id)
    await user.keyboard('{Home}')
    expect(at().textContent).toMatch(/overview: met$/)
    await user.keyboard('{Control>}{End}{/Control}')
    expect(at().textContent).toMatch(/^SAF 101/)
    await user.keyboard('{Control>}{Home}{/Control}')
    expect(at().textContent).toBe('NAV, 1 of 2 ready: Week 1, overview: open in no course')
    await user.keyboard('{Enter}')
    await waitFor(() => expect(names()).toHaveLength(3))
    const stops = [...document.querySelectorAll<HTMLElement>('[role=treegrid], [role=treegrid] a')]
    expect(stops.filter(({ tabIndex }) => tabIndex === 0)).toEqual([grid])
  })
  it('shows the evidence of what was pressed beside it, keeps it, and raises it', async () => {
    const { user, asked, address } = open()
    const grid = await screen.findByRole('treegrid')
    grid.focus()
    await user.keyboard('{ArrowDown}{ArrowRight}{Enter}')
    expect(address()).toContain('at=1%7Eweek%3A1%2Fquiz')
    const aside = within(screen.getByRole('complementary'))
    expect(await aside.findByText(/has no due date/)).toBeTruthy()
    await user.keyboard('{ArrowDown}')
    expect(aside.getByText('NAV 101 Navigation 1')).toBeTruthy()
    await user.click(aside.getByRole('button', { name: 'Raise it' }))
    await aside.findByRole('button', { name: 'Raised with Sunniva Drake' })
    expect(asked.find(({ route }) => route === 'followUp')).toMatchObject({
      at: { course: '1' },
      body: { does: 'raise', fingerprints: ['f1', 'f2'] },
    })
    const crossing = asked.find(({ route }) => route === 'crossing')
    expect(crossing?.query['column']).toBe('week:1/quiz')
    await user.click(aside.getByRole('button', { name: 'let go' }))
    expect(aside.getByText('NAV 102 Navigation 2')).toBeTruthy()
  })
  it('stands at the crossing that the address names, and at none that is not there', async () => {
    open(few, {}, people.designer, '?at=1~week:1/quiz')
    const aside = within(await screen.findByRole('complementary'))
    expect(aside.getByRole('heading', { name: /^Pressed/ })).toBeTruthy()
    expect(await aside.findByText(/has no due date/)).toBeTruthy()
    document.body.replaceChildren()
    open(few, {}, people.designer, '?at=999~week:1/quiz')
    expect(await screen.findByRole('heading', { name: /^Under the pointer/ })).toBeTruthy()
  })
  it.each([
    ['', 1],
    ['?asOf=2026-10-05', 0],
  ])('does what is to be mended first only as of today%s', async (query, presses) => {
    const action = {
      rule: 'must-part-hidden',
      part: null,
      title: 'What must be there can be seen',
      example: '“Welcome” is hidden.',
      mender: 'designer' as const,
      byMachine: true,
      places: 1,
      count: 1,
      people: 0,
      courses: [],
      effortMinutes: 1,
      becomeReady: 1,
    }
    open(few, { conformance: { ...college(few), mendFirst: [action] } }, people.designer, query)
    await screen.findByText(action.title)
    expect(screen.queryAllByRole('button', { name: 'Plan 1 mend in 1 course' })).toHaveLength(
      presses,
    )
  })
  it('is grouped, sorted and narrowed by what the address says', async () => {
    open(few, {}, people.designer, '?by=instructor&shown=open')
    await screen.findByRole('treegrid')
    expect(names()).toEqual([
      expect.stringContaining('Sunniva Drake'),
      expect.stringContaining('NAV 101'),
    ])
  })
  it('offers nothing to do to who only reads', async () => {
    const { user } = open(few, {}, people.reviewer)
    const grid = await screen.findByRole('treegrid')
    grid.focus()
    await user.keyboard('{ArrowDown}{ArrowRight}{Enter}')
    await screen.findByText(/has no due date/)
    expect(screen.queryByRole('button', { name: 'Raise it' })).toBe(null)
    expect(screen.queryByRole('button', { name: /^Check/ })).toBe(null)
  })
  it('of which nothing was checked says what to press', async () => {
    open([])
    expect(await screen.findByText(/No course was checked as of this date/)).toBeTruthy()
  })
})
