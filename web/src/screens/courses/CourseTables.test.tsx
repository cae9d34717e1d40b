import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { CourseValuesReport, MadeCourses as Made } from '@wickerframe/contract'
import { templateSummary } from '../../testing/answers.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../testing/server.testing.ts'
import { CourseValues, MakeCourses } from './CourseTables.tsx'

const made = (more: Partial<Made> = {}): Made => ({
  dry: true,
  digest: 'd1',
  note: '',
  made: [{ platformId: 'k-1', name: 'Navigation 01', classSections: ['01', '02'] }],
  errors: [],
  ...more,
})
const values = (more: Partial<CourseValuesReport> = {}): CourseValuesReport => ({
  dry: true,
  digest: 'v1',
  note: '',
  courses: 1,
  changes: [{ course: 'NAV 101', what: 'room', from: '', to: 'Quay 2' }],
  errors: [],
  ...more,
})
const opening = { open: true, onOpenChange: () => undefined }
const opened = (dialog: React.ReactNode, answers: Answers) => {
  const asked = serve({ listTemplates: [templateSummary('harbour')], ...answers })
  const { user } = show(dialog)
  return {
    user,
    sent: (route: string) =>
      asked.filter((one) => one.route === route).map(({ query, body }) => ({ query, body })),
    type: (text: string) => user.type(screen.getByRole('textbox'), text),
  }
}
const press = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name })
const says = (words: RegExp) =>
  waitFor(() => expect(screen.getByRole('status').textContent).toMatch(words))

describe('courses made from a table', () => {
  it('are told before they are made, as many as was chosen', async () => {
    const { user, sent, type } = opened(<MakeCourses {...opening} />, {
      makeCourses: ({ query }) => made({ dry: query['dry'] === '1' }),
    })
    expect([press('See what it would do').disabled, press('Make the courses').disabled]).toEqual([
      true,
      true,
    ])
    await type('code')
    await user.click(press('See what it would do'))
    await says(/^This would make 1 course\.Navigation 01 \(k-1, class sections 01, 02\)/)
    // A preview of another choice is none of this one.
    await user.selectOptions(screen.getByLabelText('How courses are shared'), 'shared')
    await says(/^$/)
    expect(press('Make the courses').disabled).toBe(true)
    await user.click(press('See what it would do'))
    await says(/^This would make/)
    await user.click(press('Make the courses'))
    await says(/^Made 1 course; they are in the list, as shells/)
    expect(sent('makeCourses')).toEqual([
      { query: { dry: '1', how: 'each' }, body: 'code' },
      { query: { dry: '1', how: 'shared' }, body: 'code' },
      { query: { shown: 'd1', how: 'shared' }, body: 'code' },
    ])
  })
})

describe('values from a table', () => {
  it('are told as they will be, and those beyond the first counted', async () => {
    const changes = Array.from({ length: 43 }, () => values().changes).flat()
    const { user, type } = opened(<CourseValues {...opening} />, {
      setCourseValues: values({ changes }),
    })
    await type('course')
    await user.click(press('See what it would do'))
    await says(
      /^This would change 43 values in 1 course\.NAV 101: room from “” to “Quay 2”.*and 3 more$/,
    )
  })
  it('are asked for once, however often it is pressed', async () => {
    let answer: (report: CourseValuesReport) => void = () => undefined
    const { user, sent, type } = opened(<CourseValues {...opening} />, {
      setCourseValues: ({ query }) =>
        query['dry'] === '1' ? values() : new Promise((resolve) => (answer = resolve)),
    })
    await type('course')
    await user.click(press('See what it would do'))
    await says(/would change/)
    await user.dblClick(press('Set the values'))
    answer(values({ dry: false }))
    await says(/^Changed 1 value/)
    expect(sent('setCourseValues')).toHaveLength(2)
  })
  it('that are typed while others are looked at are not told of by those', async () => {
    let answer: (report: CourseValuesReport) => void = () => undefined
    const { user, type } = opened(<CourseValues {...opening} />, {
      setCourseValues: () => new Promise((resolve) => (answer = resolve)),
    })
    await type('course')
    await user.click(press('See what it would do'))
    await type(', room')
    answer(values())
    await waitFor(() => expect(press('See what it would do').disabled).toBe(false))
    expect(screen.getByRole('status').textContent).toBe('')
    expect(press('Set the values').disabled).toBe(true)
  })
  it.each([
    ['told anew', values({ digest: 'v2', courses: 2 }), /something else.*in 2 courses/, false],
    [
      'refused, where it cannot be told anew either',
      new Refusal(400, 'no'),
      /something else by now\.$/,
      true,
    ],
  ])('that would do something else by now are %s', async (_, again, words, isRefused) => {
    let looks = 0
    const { user, type } = opened(<CourseValues {...opening} />, {
      setCourseValues: ({ query }) => {
        if (query['dry'] !== '1')
          throw new Refusal(409, 'It would do something else by now.', {
            type: 'urn:wickerframe:problem:changed',
          })
        if (++looks === 1) return values()
        if (again instanceof Refusal) throw again
        return again
      },
    })
    await type('course')
    await user.click(press('See what it would do'))
    await says(/in 1 course/)
    await user.click(press('Set the values'))
    await says(words)
    expect(press('Set the values').disabled).toBe(isRefused)
  })
})
