import { render, screen, within } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import { ListOfParts, type Listing } from './ListOfParts.tsx'

const show = (listing: Partial<Listing>) => {
  const onTake = vi.fn()
  const onClose = vi.fn()
  render(
    <ListOfParts
      listing={{ text: '', html: '', intoCells: null, ...listing }}
      onTake={onTake}
      onClose={onClose}
    />,
  )
  return { onTake, onClose, user: userEvent.setup() }
}
const named = () => screen.queryAllByLabelText<HTMLInputElement>('Named').map(({ value }) => value)
const kind = (name: string) => screen.getByLabelText<HTMLSelectElement>(`Kind of ${name}`)

describe('a list that was pasted', () => {
  it('is shown with guessed kinds before it is taken, each of which can be set right', async () => {
    const { onTake, user } = show({ text: 'Start here\n  Welcome\n  Syllabus quiz\nWind' })
    expect(named()).toEqual(['Start here', 'Welcome', 'Syllabus quiz', 'Wind'])
    expect(kind('Syllabus quiz').value).toBe('assessment')
    // Others stand in it, so it is a module, whatever else is chosen.
    expect([kind('Start here').value, kind('Start here').disabled]).toEqual(['module', true])
    await user.selectOptions(kind('Wind'), 'discussion')
    await user.type(screen.getByLabelText('Repeats of Wind'), 'each week')
    await user.click(screen.getByRole('button', { name: 'Put in 4 rows' }))
    expect(onTake.mock.calls[0]?.[0]).toMatchObject([
      { kind: 'module', depth: 0 },
      { kind: 'page', depth: 1 },
      { kind: 'assessment', depth: 1 },
      { kind: 'discussion', depth: 0, repeats: 'each week' },
    ])
  })
  it('loses one row where it is left out; what stood in it comes out by a step', async () => {
    const { onTake, user } = show({ text: 'Start\n  Welcome\nWind' })
    await user.click(screen.getByRole('button', { name: 'Leave out Start' }))
    await user.click(screen.getByRole('button', { name: 'Put in 2 rows' }))
    expect(onTake.mock.calls[0]?.[0]).toMatchObject([
      { name: 'Welcome', depth: 0 },
      { name: 'Wind', depth: 0 },
    ])
  })
  it('is not taken while a name or a repeat is none; what else cannot be read is told and left out', async () => {
    const { user } = show({ text: 'Item\tPoints\tDue\nEssay\tmany\tsoon' })
    expect(screen.getByText(/“many” is left out: a number/)).toBeTruthy()
    expect(screen.getByText(/“soon” is left out/)).toBeTruthy()
    const take = () => screen.getByRole<HTMLButtonElement>('button', { name: /Put in/ }).disabled
    expect(take()).toBe(false)
    await user.type(screen.getByLabelText('Repeats of Essay'), 'sometimes')
    expect(take()).toBe(true)
    await user.clear(screen.getByLabelText('Repeats of Essay'))
    await user.clear(screen.getByLabelText('Named'))
    expect(take()).toBe(true)
  })
  it('can be written over the cells instead, where it was pasted upon some', async () => {
    const intoCells = vi.fn()
    const { onTake, onClose, user } = show({ text: 'One\nTwo', intoCells })
    await user.click(screen.getByRole('button', { name: /Write over the cells/ }))
    expect([intoCells.mock.calls.length, onClose.mock.calls.length]).toEqual([1, 1])
    expect(onTake).not.toHaveBeenCalled()
  })
})

describe('a list that is written', () => {
  it('becomes rows while it is typed', async () => {
    const { user } = show({})
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Put in' }).disabled).toBe(true)
    await user.type(screen.getByLabelText('The list'), 'Week 1: Ropes{Enter}Week 2: Wind')
    expect(named()).toEqual(['Week {week}: {topic}'])
    const list = screen.getByRole('list', { name: 'Rows as they will come' })
    expect(within(list).getByLabelText<HTMLInputElement>(/^Repeats of/).value).toBe(
      'each week, 1 to 2',
    )
    expect(screen.getByText(/became one that repeats/)).toBeTruthy()
    expect(screen.queryByRole('button', { name: /Write over/ })).toBeNull()
  })
})
