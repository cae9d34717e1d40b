import { render, screen } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { Dialog } from './Dialog.tsx'

const Opener = () => {
  const [open, setOpen] = useState(false)
  return (
    <>
      <button type="button">before</button>
      <button type="button" onClick={() => setOpen(true)}>
        Waive
      </button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title="Waive it?"
        explains="With a reason."
      >
        <input aria-label="Reason" />
        <button type="button" onClick={() => setOpen(false)}>
          Done
        </button>
      </Dialog>
    </>
  )
}

describe('a dialog', () => {
  it.each([
    ['Escape', (user: ReturnType<typeof userEvent.setup>) => user.keyboard('{Escape}')],
    [
      'its own button',
      (user: ReturnType<typeof userEvent.setup>) =>
        user.click(screen.getByRole('button', { name: 'Done' })),
    ],
  ])('closed by %s gives the keyboard back to what opened it', async (_, close) => {
    render(<Opener />)
    const user = userEvent.setup()
    const opener = screen.getByRole('button', { name: 'Waive' })
    await user.click(opener)
    expect(screen.getByRole('dialog', { name: 'Waive it?' })).toBeTruthy()
    await close(user)
    expect(screen.queryByRole('dialog')).toBeNull()
    expect(document.activeElement).toBe(opener)
  })
  it('takes the keyboard to its first field, and keeps it within', async () => {
    render(<Opener />)
    const user = userEvent.setup()
    await user.click(screen.getByRole('button', { name: 'Waive' }))
    const dialog = screen.getByRole('dialog')
    for (let press = 0; press < 5; press++) {
      expect(dialog.contains(document.activeElement)).toBe(true)
      await user.tab()
    }
  })
  it('is read aloud with what it explains', async () => {
    render(<Opener />)
    await userEvent.setup().click(screen.getByRole('button', { name: 'Waive' }))
    const described = screen.getByRole('dialog').getAttribute('aria-describedby') ?? ''
    expect(document.getElementById(described)?.textContent).toBe('With a reason.')
  })
})
