import { render, screen } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { expect, it, vi } from 'vitest'
import { courseSummary } from '../../testing/answers.testing.ts'
import { CoursePick } from './CoursePick.tsx'

const courses = [
  {
    id: 1,
    code: 'NAV 110',
    title: 'Coastal Navigation',
    classSections: ['01'],
    teacher: 'Åse Holm',
  },
  {
    id: 2,
    code: 'NAV 110',
    title: 'Coastal Navigation',
    classSections: ['02'],
    teacher: 'Ben Ruiz',
  },
  {
    id: 3,
    code: 'GAL 210',
    title: 'Galley Sanitation',
    classSections: ['01'],
    teacher: 'Åse Holm',
  },
].map(({ id, teacher, ...course }) =>
  courseSummary(id, {
    ...course,
    platformId: `p-${id}`,
    instructors: [{ name: teacher, email: 'x@kestrelsound.example' }],
  }),
)
const show = (fitting = courses) => {
  const onChoose = vi.fn()
  render(<CoursePick fitting={fitting} course="2" onChoose={onChoose} />)
  return { onChoose, user: userEvent.setup() }
}
const found = () => screen.getAllByRole('option').map(({ textContent }) => textContent)

it('names the course with its class section, and finds another by code, section or teacher, whatever their accents', async () => {
  const { onChoose, user } = show()
  await user.click(screen.getByRole('button', { name: /NAV 110 Coastal Navigation, 02/ }))
  expect(found()).toHaveLength(3)
  expect(screen.getByRole('option', { selected: true }).textContent).toContain('Ben Ruiz')
  await user.keyboard('nav 01')
  expect(found()).toHaveLength(1)
  await user.clear(screen.getByRole('combobox'))
  await user.keyboard('ase holm')
  expect(found()).toHaveLength(2)
  await user.keyboard('{ArrowDown}{Enter}')
  expect(onChoose).toHaveBeenCalledWith('3')
  expect(screen.queryByRole('combobox')).toBeNull()
})
it('says that none is called so, and is left as it was by Escape', async () => {
  const { onChoose, user } = show()
  await user.click(screen.getByRole('button'))
  await user.keyboard('lighthouse')
  expect(screen.getByText('No course of these is called that.')).toBeTruthy()
  await user.keyboard('{Escape}')
  expect(screen.queryByRole('combobox')).toBeNull()
  expect(onChoose).not.toHaveBeenCalled()
})
it('has nothing to choose where no course fits', () => {
  show([])
  expect(screen.getByRole<HTMLButtonElement>('button').disabled).toBe(true)
  expect(screen.getByText(/no course fits/)).toBeTruthy()
})
