import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { CourseDetail, MeInCourse } from '@wickerframe/contract'
import { peopleAsFacts, type CoursePerson } from '@wickerframe/core'
import { courseSummary } from '../../../testing/answers.testing.ts'
import { checkedExample, noCare } from '../../../testing/checked.testing.ts'
import { people } from '../../../testing/people.testing.ts'
import { show } from '../../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../../testing/server.testing.ts'
import { CoursePeopleTab } from './CoursePeopleTab.tsx'

const ana: CoursePerson = { name: 'Ana Reef', email: people.instructor.email, duty: 'owner' }
const bo: CoursePerson = { name: 'Bo Lund', email: 'bo@kestrelsound.example', duty: 'instructor' }
const cy: CoursePerson = { name: 'Cy Holm', email: 'cy@kestrelsound.example', duty: 'assistant' }

const detail = (those: readonly CoursePerson[]): CourseDetail => {
  const { course, facts, result, template } = checkedExample()
  const { instructors, assistants, owner } = peopleAsFacts(those)
  return {
    ...courseSummary(7, { instructors, assistants, owner: owner ?? null }),
    facts: { ...facts, ...peopleAsFacts(those) },
    templateDocument: template,
    snapshot: course,
    result,
    history: [],
    mergedInto: null,
    mergedHere: [],
    strengthsVersion: null,
    care: noCare(),
    roles: [],
  }
}
const secondWeek = (): string =>
  checkedExample().result.pairs.filter(({ expected }) => expected.startsWith('week@'))[1]
    ?.expected ?? ''
const showPeople = (
  me: MeInCourse = people.designer,
  answers: Answers = { decideCoursePeople: {} },
  those = [ana, bo, cy],
) => {
  const asked = serve(answers)
  return { ...show(<CoursePeopleTab course={detail(those)} me={me} />), asked }
}

describe('the people of a course', () => {
  it('are given duties and modules, and saved as they were shown with what they were before', async () => {
    const { user, asked } = showPeople()
    await user.selectOptions(screen.getByLabelText('Duty of Bo Lund'), 'owner')
    await user.selectOptions(screen.getByLabelText(/^Acts for Week 2/), 'Cy Holm')
    await user.type(screen.getByLabelText('Name'), 'Di Vik')
    await user.type(screen.getByLabelText('E-mail'), 'Di@KestrelSound.example')
    await user.click(screen.getByRole('button', { name: 'Add' }))
    await user.click(screen.getByRole('button', { name: 'Save people' }))
    await waitFor(() => expect(asked).toHaveLength(1))
    expect(asked[0]?.body).toMatchObject({
      people: [
        { ...ana, duty: 'instructor' },
        { ...bo, duty: 'owner' },
        cy,
        { name: 'Di Vik', email: 'di@kestrelsound.example', duty: 'assistant' },
      ],
      was: { people: [ana, bo, cy], moduleOwners: {} },
    })
    expect(asked[0]?.body).toHaveProperty('moduleOwners', { [secondWeek()]: cy.email })
  })
  it('keep what was chosen when saving is refused, and are put back on demand', async () => {
    const { user } = showPeople(people.designer, {
      decideCoursePeople: () => {
        throw new Refusal(409, 'somebody else changed the people of this course meanwhile')
      },
    })
    await user.click(screen.getByRole('button', { name: 'Take out Cy Holm' }))
    await user.click(screen.getByRole('button', { name: 'Save people' }))
    expect((await screen.findByRole('alert')).textContent).toContain('somebody else changed')
    expect(screen.queryByText('Cy Holm')).toBe(null)
    await user.click(screen.getByRole('button', { name: 'Put back' }))
    expect(screen.getByLabelText('Duty of Cy Holm')).toBeTruthy()
  })
  it('the owner decides who helps and passes the course on, and takes no teacher out', () => {
    showPeople(people.instructor)
    expect(screen.queryByRole('button', { name: 'Take out Bo Lund' })).toBe(null)
    expect(screen.getByRole('button', { name: 'Take out Cy Holm' })).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Add as assistant' })).toBeTruthy()
    const choices = (name: string) =>
      [...screen.getByLabelText<HTMLSelectElement>(`Duty of ${name}`).options].map(
        ({ value }) => value,
      )
    expect([choices('Ana Reef'), choices('Bo Lund'), choices('Cy Holm')]).toEqual([
      ['owner'],
      ['owner', 'instructor'],
      ['assistant'],
    ])
  })
  it.each([
    ['a reviewer', people.reviewer],
    [
      'somebody who helps',
      { ...people.instructor, email: cy.email, roles: ['assistant' as const] },
    ],
    ['somebody who teaches and does not own it', { ...people.instructor, email: bo.email }],
  ])('are read by %s, who changes nothing', (_, me) => {
    showPeople(me)
    expect(screen.queryAllByRole('combobox')).toEqual([])
    expect(screen.queryAllByRole('button')).toEqual([])
    expect(screen.getByText('Cy Holm')).toBeTruthy()
  })
  it('say so when there is nobody', () => {
    showPeople(people.designer, {}, [])
    expect(screen.getByText(/Nobody teaches it yet/)).toBeTruthy()
  })
})
