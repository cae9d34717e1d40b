import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { addDays } from '@wickerframe/core'
import type { Ahead } from '@wickerframe/contract'
import { people } from '../../../testing/people.testing.ts'
import { show } from '../../../testing/screen.testing.tsx'
import { serve } from '../../../testing/server.testing.ts'
import { AheadScreen } from './AheadScreen.tsx'

const course = (id: number) => ({
  id,
  platformId: `p${id}`,
  code: 'NAV 110',
  title: `Navigation ${id}`,
  classSections: ['01'],
})
const day = (on: string, more: Partial<Ahead['days'][number]> = {}): Ahead['days'][number] => ({
  on,
  musts: 0,
  count: 0,
  courses: [],
  rules: [],
  ...more,
})
const days = (of: Readonly<Record<string, Partial<Ahead['days'][number]>>>): Ahead['days'] =>
  Array.from({ length: 28 }, (_, i) => {
    const on = addDays('2026-09-17', i)
    return day(on, of[on])
  })
const two = days({
  '2026-09-21': {
    musts: 5,
    count: 14,
    courses: [course(1), course(2)],
    rules: [
      { title: 'Musts can be seen', musts: 4 },
      { title: 'Filled in', musts: 1 },
    ],
  },
  '2026-09-28': { musts: 2, count: 1, courses: [course(3)], rules: [] },
})
const showAhead = (view: Ahead, address = '/conformance/ahead') => {
  serve({ ahead: view })
  return show(<AheadScreen me={people.designer} />, { address })
}

describe('the next four weeks', () => {
  it('says that nothing falls due, and which courses are missing', async () => {
    showAhead({ days: days({}), unchecked: 2 })
    expect(
      (await screen.findByText(/No must falls due in the next four weeks/)).textContent,
    ).toContain('2 courses are not checked as of today')
    expect(screen.queryByRole('table')).toBeNull()
  })
  it('draws each day, says what is drawn, and shows the soonest with its courses and rules', async () => {
    showAhead({ days: two, unchecked: 0 })
    expect((await screen.findByRole('img')).getAttribute('aria-label')).toContain(
      'in the next 28 days: 7, at most 5 on a day',
    )
    expect(document.querySelectorAll('svg rect.fill-rust, svg rect.fill-tide')).toHaveLength(2)
    expect(screen.getByRole('heading', { name: 'Mon 21 Sep: 5 musts in 14 courses' })).toBeTruthy()
    expect(screen.getByText('and 12 more courses')).toBeTruthy()
    expect(screen.getByText('Musts can be seen').closest('li')?.textContent).toContain('4')
    expect(
      screen.getByRole('link', { name: 'The weave as of that day' }).getAttribute('href'),
    ).toBe('/conformance?asOf=2026-09-21')
  })
  it('looks at another day by its press, which stands in the address', async () => {
    const { user, address } = showAhead({ days: two, unchecked: 0 })
    const table = within(await screen.findByRole('table'))
    await user.click(table.getByRole('button', { name: 'Mon 28 Sep' }))
    expect(screen.getByRole('heading', { name: 'Mon 28 Sep: 2 musts in 1 course' })).toBeTruthy()
    expect(address()).toBe('/conformance/ahead?day=2026-09-28')
    expect(screen.getByRole('link', { name: 'NAV 110 Navigation 3' }).getAttribute('href')).toBe(
      '/courses/3?asOf=2026-09-28',
    )
  })
  it('of a day in the address on which nothing falls due shows the soonest', async () => {
    showAhead({ days: two, unchecked: 0 }, '/conformance/ahead?day=2026-09-22')
    expect(await screen.findByRole('heading', { name: /^Mon 21 Sep/ })).toBeTruthy()
  })
})
