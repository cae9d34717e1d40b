import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { CollegeHistory } from '@wickerframe/contract'
import { addDays, type ReadinessDay } from '@wickerframe/core'
import { show } from '../../../testing/screen.testing.tsx'
import { serve } from '../../../testing/server.testing.ts'
import { HistoryScreen } from './HistoryScreen.tsx'
import { stackOf } from './stack.ts'

const day = (date: number, ready: number, notReady: number): ReadinessDay => ({
  day: `2026-09-${date}`,
  ready,
  asFarAsSeen: 0,
  notReady,
  openMusts: notReady * 2,
})
const days = [day(12, 0, 3), day(13, 1, 2), day(14, 3, 0)]
const history = (more: Partial<CollegeHistory> = {}): CollegeHistory => ({
  from: '2026-09-12',
  until: '2026-09-14',
  college: days,
  bands: [
    { title: 'MEN', courses: 2, days, edits: 4 },
    { title: 'NAV', courses: 1, days, edits: 0 },
  ],
  edits: days.map((one, i) => ({ day: one.day, edits: i * 2, courses: i })),
  deployed: 0,
  notBegun: { count: 0, lines: [] },
  daysToReady: [3, 5, 12],
  neverReady: 1,
  ...more,
})
const showHistory = (view: CollegeHistory) => {
  serve({ collegeHistory: view })
  return show(<HistoryScreen />, { address: '/conformance/days', path: '/*' })
}

describe('day by day', () => {
  it('draws all courses and each band, said in words to who does not see', async () => {
    showHistory(history())
    const drawings = await screen.findAllByRole('img')
    expect(drawings.map((one) => one.getAttribute('aria-label'))).toEqual(
      ['All courses', 'MEN', 'NAV'].map(
        (title) => `${title}. 12 Sep: 0 ready, 3 not; 14 Sep: 3 ready, 0 not.`,
      ),
    )
    expect(screen.getByText(/5 days in the middle of 3 courses, 12 at most/)).toBeTruthy()
    expect(screen.getByText('1 course was never ready.')).toBeTruthy()
  })
  it('is a table as well, the last day first', async () => {
    showHistory(history())
    const rows = within(await screen.findByRole('table', { hidden: true })).getAllByRole('row', {
      hidden: true,
    })
    expect(rows.slice(1).map((row) => row.firstChild?.textContent)).toEqual([
      '2026-09-14',
      '2026-09-13',
      '2026-09-12',
    ])
  })
  it('says that nothing is known yet', async () => {
    showHistory(history({ college: [], bands: [], daysToReady: [], neverReady: 0 }))
    expect(await screen.findByText(/No course was checked yet/)).toBeTruthy()
    expect(screen.queryByRole('img')).toBeNull()
  })
})

describe('the drawing', () => {
  const size = { width: 300, height: 90, most: 3 }
  it('has a step for each day, as wide as the others, and no more than the whole height', () => {
    const { paths } = stackOf(days, size)
    expect(paths.map(({ layer }) => layer)).toEqual(['ready', 'asFarAsSeen', 'notReady'])
    for (const { path } of paths) {
      const numbers = [...path.matchAll(/-?\d+(?:\.\d+)?/g)].map(([number]) => Number(number))
      expect(numbers.every((number) => number >= 0 && number <= 300)).toBe(true)
    }
    // From the ground up on the last day, all are ready.
    expect(paths[0]?.path).toContain('300,0')
  })
  it.each([1, 2, 3, 9, 200])('names each day once below %i days', (count) => {
    const many = Array.from({ length: count }, (_, i) => ({
      ...day(12, 1, 0),
      day: addDays('2026-03-01', i),
    }))
    const { ticks } = stackOf(many, { ...size, width: 1180 })
    expect(new Set(ticks.map((tick) => tick.day)).size).toBe(ticks.length)
    expect(ticks.length).toBeGreaterThan(0)
  })
  it('holds on to a single day and to none', () => {
    expect(stackOf([day(12, 1, 0)], { ...size, most: 1 }).paths[0]?.path).toContain('300')
    expect(() => stackOf([], size)).not.toThrow()
  })
  it('draws what people edited since something was deployed, and names who has not begun', async () => {
    const line = {
      id: 7,
      platformId: 'kc-7',
      code: 'SAF 101',
      title: 'Fire Watch',
      classSections: ['02'],
    }
    showHistory(
      history({
        deployed: 3,
        notBegun: {
          count: 62,
          lines: [
            { ...line, owner: 'Noor Vandersloot' },
            { ...line, id: 8, platformId: 'kc-8', owner: '' },
          ],
        },
      }),
    )
    expect(
      await screen.findByRole('img', { name: /^Edits by day: 6 edits .* at most 4 on a day/ }),
    ).toBeTruthy()
    expect(screen.getByText('62 of 3 deployed courses not begun')).toBeTruthy()
    const names = screen.getAllByRole('link', { name: 'SAF 101 Fire Watch', hidden: true })
    expect(names.map((link) => link.closest('li')?.textContent)).toEqual([
      'SAF 101 Fire Watch class section 02, kc-7 Noor Vandersloot',
      'SAF 101 Fire Watch class section 02, kc-8 nobody teaches it',
    ])
    expect(screen.getByText('and 60 more courses')).toBeTruthy()
    expect(screen.getByText(/2 courses, 4 edits/)).toBeTruthy()
  })
  it('says that nobody was seen to edit anything, and nothing of edits before something was deployed', async () => {
    showHistory(
      history({ deployed: 2, edits: days.map((one) => ({ day: one.day, edits: 0, courses: 0 })) }),
    )
    expect(await screen.findByText(/Nobody was seen to edit/)).toBeTruthy()
    showHistory(history())
    await screen.findAllByRole('heading', { name: 'All courses' })
    expect(screen.getAllByRole('heading', { name: /^Edited/ })).toHaveLength(1)
  })
})
