import { render, screen } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { expect, it, vi } from 'vitest'
import { endOfDay, type Offset } from '@wickerframe/core'
import { OffsetLine } from './OffsetLine.tsx'

const show = (value?: Offset) => {
  const onDone = vi.fn()
  render(
    <OffsetLine
      label="Due"
      value={value}
      instant={null}
      timeZone={null}
      usualTime={endOfDay}
      disabled={false}
      onDone={onDone}
    />,
  )
  return { onDone, user: userEvent.setup(), field: screen.getByLabelText<HTMLInputElement>('Due') }
}

it('takes a date as people write it, at the end of its day where they say no time', async () => {
  const { onDone, user, field } = show()
  await user.type(field, 'the day before the module closes{Enter}')
  expect(onDone).toHaveBeenCalledWith({ from: 'week-end', days: -1, time: '23:59' })
})
it('says the time of a date that is due at the very start of its day', () => {
  const { field } = show({ from: 'weekday', weekday: 'friday', days: 0, time: '00:00' })
  expect(field.value).toBe('Friday of its week at 00:00')
})
it('shows how dates are written on a press, and to whoever types a question mark; neither takes anything away', async () => {
  const { onDone, user, field } = show({ from: 'week-end', days: 0, time: '23:59' })
  const how = () => screen.queryByText('the day before the module closes')
  expect(how()).toBeNull()
  const button = screen.getByRole('button', { name: /How dates are written/ })
  await user.click(button)
  expect(button.getAttribute('aria-expanded')).toBe('true')
  expect(how()).toBeTruthy()
  await user.click(button)
  expect(how()).toBeNull()
  await user.clear(field)
  onDone.mockClear()
  await user.type(field, '?{Enter}')
  expect(how()).toBeTruthy()
  expect(onDone).not.toHaveBeenCalled()
})
it('keeps what could not be read, and says what could be written', async () => {
  const { onDone, user, field } = show()
  await user.type(field, 'soon{Enter}')
  expect(field.value).toBe('soon')
  expect(screen.getByText(/write it like “Sunday 23:59”/)).toBeTruthy()
  expect(onDone).not.toHaveBeenCalled()
})
