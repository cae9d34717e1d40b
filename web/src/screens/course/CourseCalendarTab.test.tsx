import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { exampleCourse } from '@wickerframe/core/testing'
import { noCare } from '../../testing/checked.testing.ts'
import { courseSummary } from '../../testing/answers.testing.ts'
import { people } from '../../testing/people.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { serve } from '../../testing/server.testing.ts'
import { CourseCalendarTab } from './CourseCalendarTab.tsx'

/** A course of eight weeks whose two units somebody decided by days. */
const opened = () => {
  const { facts } = exampleCourse()
  const asked = serve({ listTerms: [], decideCalendar: { facts } })
  const units = [
    { number: 1, firstDay: '2026-08-31', lastDay: '2026-09-20' },
    { number: 2, firstDay: '2026-09-21', lastDay: '2026-10-18' },
  ]
  const course = {
    ...courseSummary(7),
    facts: { ...facts, units },
    templateDocument: null,
    snapshot: null,
    result: null,
    history: [],
    mergedInto: null,
    mergedHere: [],
    strengthsVersion: null,
    care: noCare(),
    roles: [],
  }
  const { user } = show(
    <CourseCalendarTab course={course} me={{ ...people.designer, roles: ['designer'] }} />,
  )
  return { asked, user, lastDay: screen.getByRole('textbox', { name: 'unit 1, last day' }) }
}
const drawn = () => screen.queryAllByText(/^Unit \d: /).map(({ textContent }) => textContent)
const save = () => screen.queryByRole('button', { name: 'Save calendar' })

describe('the units of a course, decided by days', () => {
  it('are drawn as they are typed, and saved so', async () => {
    const { asked, user, lastDay } = opened()
    await user.clear(lastDay)
    await user.type(lastDay, '27 sep{Tab}')
    expect(drawn()[0]).toContain('Unit 1: 31 Aug to 27 Sep')
    await user.click(save() as HTMLElement)
    await waitFor(() => expect(asked.map(({ route }) => route)).toContain('decideCalendar'))
    expect(asked.find(({ route }) => route === 'decideCalendar')?.body).toMatchObject({
      units: [
        { number: 1, firstDay: '2026-08-31', lastDay: '2026-09-27' },
        { number: 2, firstDay: '2026-09-21', lastDay: '2026-10-18' },
      ],
    })
  })
  it('one that ends on no day is neither drawn nor saved; the others stay', async () => {
    const { asked, user, lastDay } = opened()
    await user.clear(lastDay)
    await user.type(lastDay, '31 sep{Tab}')
    expect(screen.getByRole('alert').textContent).toContain('“31 sep” is no day')
    expect(drawn().map((text) => text?.slice(0, 7))).toEqual(['Unit 2:'])
    expect(save()?.hasAttribute('disabled')).toBe(true)
    await user.clear(lastDay)
    await user.type(lastDay, '18 sep{Tab}')
    expect(drawn()).toHaveLength(2)
    expect([
      save()?.hasAttribute('disabled'),
      asked.some(({ route }) => route === 'decideCalendar'),
    ]).toEqual([false, false])
  })
})
