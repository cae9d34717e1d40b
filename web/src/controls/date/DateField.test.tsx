import { render, screen } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { DateField } from './DateField.tsx'

/** A Wednesday. */
const near = '2026-09-16'

/** A field in a form, with what it told and what the form was sent with. */
const shown = (first: string, more: { notBefore?: string; required?: boolean } = {}) => {
  const told = vi.fn<(day: string) => void>()
  const sent = vi.fn<(day: string) => void>()
  const Form = () => {
    const [day, setDay] = useState(first)
    return (
      <form
        onSubmit={(event) => {
          event.preventDefault()
          sent(day)
        }}
      >
        <DateField
          label="Mended by"
          value={day}
          near={near}
          onPick={(one) => {
            told(one)
            setDay(one)
          }}
          {...more}
        />
        <button type="submit">Promise</button>
      </form>
    )
  }
  render(<Form />)
  return {
    told,
    sent,
    user: userEvent.setup(),
    field: screen.getByLabelText<HTMLInputElement>('Mended by'),
    problem: () => screen.queryByRole('alert')?.textContent ?? null,
  }
}
const month = () => screen.getByRole('button', { name: 'Mended by: choose from a month' })

describe('a day that is asked for', () => {
  it('is shown in words, whatever the browser’s own language is', () => {
    expect(shown(near).field.value).toBe('Wed 16 Sep 2026')
  })

  it('is read however it is written, once one leaves the field', async () => {
    const { user, field, told } = shown('')
    await user.type(field, '21 sep')
    expect(told).not.toHaveBeenCalled()
    await user.tab()
    expect(told.mock.lastCall).toEqual(['2026-09-21'])
    expect(field.value).toBe('Mon 21 Sep 2026')
  })

  it('is what was just typed when Enter sends its form', async () => {
    const { user, field, sent } = shown(near)
    await user.clear(field)
    await user.type(field, 'monday{Enter}')
    expect(sent.mock.calls).toEqual([['2026-09-21']])
  })

  it('is told at once where it is written in full', async () => {
    const { user, field, told } = shown('')
    await user.type(field, '2026-10-05')
    expect([told.mock.calls, field.value]).toEqual([[['2026-10-05']], 'Mon 5 Oct 2026'])
  })

  it.each([
    ['32 sep', '“32 sep” is no day; write it like 16 Sep 2026.'],
    ['4/9/2026', 'That may be 4 Sep or 9 Apr: write the month as a word.'],
  ])(
    '“%s” stays as it was typed, is said, and keeps the form from being sent',
    async (text, says) => {
      const { user, field, told, sent, problem } = shown(near)
      await user.clear(field)
      await user.type(field, text)
      expect(problem()).toBeNull()
      await user.tab()
      expect([field.value, problem()]).toEqual([text, says])
      // Nobody takes the day that stood there before for what was meant.
      expect(told.mock.lastCall).toEqual([text])
      expect(field.getAttribute('aria-invalid')).toBe('true')
      expect(
        document.getElementById(field.getAttribute('aria-describedby') ?? '')?.textContent,
      ).toBe(says)
      expect(field.validationMessage).toBe(says)
      await user.type(field, '{Escape}')
      expect(sent).not.toHaveBeenCalled()
    },
  )

  it('may be taken away, but not where one is needed', async () => {
    const free = shown(near)
    await free.user.clear(free.field)
    await free.user.tab()
    expect([free.told.mock.lastCall, free.problem()]).toEqual([[''], null])
  })

  it('that is needed is asked for', async () => {
    const { user, field, problem } = shown(near, { required: true })
    await user.clear(field)
    await user.tab()
    expect(problem()).toBe('A day is needed, such as 16 Sep.')
  })

  it('does not ask before anybody was there', () => {
    expect(shown('', { required: true }).problem()).toBeNull()
  })

  it('too early is said', async () => {
    const { user, field, problem } = shown('', { notBefore: near })
    await user.type(field, '15 Sep{Tab}')
    expect(problem()).toBe('Not before Wed 16 Sep 2026.')
  })

  it('moves by days and months with the keys, and stays where it is beyond the end of a month', async () => {
    const { user, field, told } = shown('2026-10-31')
    await user.type(field, '{ArrowUp}')
    await user.type(field, '{ArrowDown}')
    await user.type(field, '{PageUp}')
    await user.type(field, '{PageDown}')
    expect(told.mock.calls.flat()).toEqual(['2026-11-01', '2026-10-31', '2026-11-30', '2026-10-30'])
  })

  it('chosen elsewhere meanwhile is shown, and not what was typed before', async () => {
    const field = (value: string) => (
      <DateField label="as of" value={value} near={near} required onPick={() => undefined} />
    )
    const { rerender } = render(field(near))
    const input = screen.getByLabelText<HTMLInputElement>('as of')
    const user = userEvent.setup()
    await user.clear(input)
    await user.type(input, 'soon{Tab}')
    expect([input.value, input.getAttribute('aria-invalid')]).toEqual(['soon', 'true'])
    rerender(field('2026-09-21'))
    expect([input.value, input.getAttribute('aria-invalid')]).toEqual(['Mon 21 Sep 2026', 'false'])
  })

  it('is forgotten with Escape while it is typed', async () => {
    const { user, field, told } = shown(near)
    await user.clear(field)
    await user.type(field, '3 oc{Escape}')
    expect([field.value, told.mock.calls]).toEqual(['Wed 16 Sep 2026', []])
  })
})

describe('a month to choose from', () => {
  const day = (name: string) => screen.getByRole('button', { name })

  it('opens at the chosen day, is walked with the keys, and gives the focus back', async () => {
    const { user, told } = shown(near)
    await user.click(month())
    expect(document.activeElement).toBe(day('Wednesday 16 September 2026'))
    expect(day('Wednesday 16 September 2026').closest('td')?.getAttribute('aria-selected')).toBe(
      'true',
    )
    await user.keyboard('{ArrowRight}{ArrowDown}{Home}')
    expect(document.activeElement).toBe(day('Monday 21 September 2026'))
    await user.keyboard('{End}{ArrowUp}{ArrowLeft}{PageDown}')
    expect(document.activeElement).toBe(
      day('Monday 19 October 2026').closest('tr')?.querySelector('[tabindex="0"]'),
    )
    await user.keyboard('{PageUp}{Enter}')
    expect(told.mock.calls).toEqual([['2026-09-19']])
    expect(document.activeElement).toBe(month())
  })

  it('turns to other months, and is closed with Escape without a choice', async () => {
    const { user, told } = shown('')
    await user.click(month())
    await user.click(day('The month after'))
    expect(screen.getByRole('grid', { name: 'October 2026' })).toBeTruthy()
    await user.click(day('The month before'))
    await user.click(day('The month before'))
    expect(screen.getByRole('grid', { name: 'August 2026' })).toBeTruthy()
    await user.keyboard('{Escape}')
    expect([screen.queryByRole('grid'), told.mock.calls]).toEqual([null, []])
  })

  it('shows days that are too early, and lets none of them be chosen', async () => {
    const { user, told } = shown('', { notBefore: near })
    await user.click(month())
    await user.click(day('Tuesday 15 September 2026'))
    expect(told).not.toHaveBeenCalled()
    await user.click(day('Thursday 17 September 2026'))
    expect(told.mock.calls).toEqual([['2026-09-17']])
  })
})
