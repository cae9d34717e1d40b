import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { Schedule } from '@wickerframe/contract'
import { courseSummary } from '../../testing/answers.testing.ts'
import { people } from '../../testing/people.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../testing/server.testing.ts'
import { patternOf, patternWords } from './pattern.ts'
import { SchedulesScreen } from './SchedulesScreen.tsx'

const schedule = (id: number, more: Partial<Schedule> = {}): Schedule => ({
  id,
  pattern: '0 6 * * 1-5',
  timeZone: 'America/Halifax',
  term: { code: 'autumn-2026', title: 'Autumn 2026' },
  department: null,
  paused: false,
  by: 'Ingrid Okafor',
  courses: 48,
  nextAt: '2026-09-21T09:00:00Z',
  lastAt: null,
  lastRun: null,
  lastSaid: '',
  ...more,
})
const showSchedules = (of: Schedule[], more: Answers = {}, me = people.designer) => {
  const asked = serve({
    listSchedules: of,
    listTerms: [],
    listCourses: [courseSummary(1, { department: 'GAL' })],
    ...more,
  })
  return { ...show(<SchedulesScreen me={me} />), asked }
}

describe('schedules', () => {
  it('says when each comes, about whom, and what came of it the last time', async () => {
    showSchedules([
      schedule(1, { lastAt: '2026-09-18T09:00:00Z', lastRun: 7 }),
      schedule(2, {
        pattern: '*/20 6-9 * * *',
        term: null,
        department: 'GAL',
        courses: 1,
        lastAt: '2026-09-18T09:00:00Z',
        lastSaid: 'there was no course to read',
      }),
      schedule(3, { paused: true }),
    ])
    const [one, two, three] = await screen.findAllByRole('listitem')
    expect(one?.textContent).toContain('Monday to Friday at 06:00')
    expect(one?.textContent).toContain('48 courses in Autumn 2026')
    expect(one && within(one).getByRole('link').getAttribute('href')).toBe('/rollouts/7')
    expect(two?.textContent).toContain('*/20 6-9 * * *')
    expect(two?.textContent).toContain('1 course of GAL, whatever the term')
    expect(two?.textContent).toContain('there was no course to read')
    expect(three?.textContent).toContain('paused')
  })
  it('is made by a form, without knowing how patterns are written', async () => {
    const { asked, user } = showSchedules([], { addSchedule: { id: 4 } })
    await user.selectOptions(await screen.findByLabelText('How often'), 'once a week')
    await user.selectOptions(screen.getByLabelText('On'), 'Thursday')
    await user.selectOptions(await screen.findByLabelText('Of'), 'GAL')
    await user.click(screen.getByRole('button', { name: 'Read and check by it' }))
    expect(asked.find(({ route }) => route === 'addSchedule')?.body).toEqual({
      pattern: '0 6 * * 4',
      term: null,
      department: 'GAL',
    })
  })
  it('keeps a pattern that was refused, and says why', async () => {
    const { user } = showSchedules([], {
      addSchedule: () => {
        throw new Refusal(400, 'at /pattern: found * * * * *; that is every 1 minutes')
      },
    })
    await user.selectOptions(await screen.findByLabelText('How often'), 'by a pattern of one’s own')
    const field = screen.getByLabelText<HTMLInputElement>(/^Minute, hour/)
    await user.clear(field)
    await user.type(field, '* * * * *')
    await user.click(screen.getByRole('button', { name: 'Read and check by it' }))
    expect(await screen.findByText(/every 1 minutes/)).toBeTruthy()
    expect(field.value).toBe('* * * * *')
  })
  it('is paused, goes on, and is taken away', async () => {
    const { asked, user } = showSchedules([schedule(1), schedule(2, { paused: true })], {
      pauseSchedule: {},
      removeSchedule: {},
    })
    await user.click(await screen.findByRole('button', { name: 'pause' }))
    await user.click(screen.getByRole('button', { name: 'go on' }))
    await user.click(screen.getAllByRole('button', { name: 'take away' })[0] as HTMLElement)
    expect(
      asked.flatMap(({ route, at, body }) =>
        route.endsWith('Schedule') ? [[route, at['schedule'], body]] : [],
      ),
    ).toMatchObject([
      ['pauseSchedule', '1', { paused: true }],
      ['pauseSchedule', '2', { paused: false }],
      ['removeSchedule', '1', expect.anything()],
    ])
  })
  it('is nobody’s to change who may not check', async () => {
    showSchedules([schedule(1)], {}, people.reviewer)
    await screen.findByText(/48 courses/)
    expect(screen.queryByRole('button')).toBeNull()
  })
})

describe('a pattern in words', () => {
  it.each([
    ['daily', '06:30', 0, 'every day at 06:30'],
    ['weekdays', '18:05', 0, 'Monday to Friday at 18:05'],
    ['weekly', '00:00', 0, 'every Sunday at 00:00'],
    ['weekly', '06:00', 6, 'every Saturday at 06:00'],
  ] as const)('of %s at %s (%i) is “%s”', (often, time, weekday, words) => {
    expect(patternWords(patternOf(often, time, weekday))).toBe(words)
  })
  it('stays as it is written, where it is no simple one', () => {
    expect(patternWords('0 6 1 * *')).toBe('0 6 1 * *')
  })
})
