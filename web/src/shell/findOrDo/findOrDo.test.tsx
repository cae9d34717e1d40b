import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { actsOnScreen } from './actsOnScreen.ts'
import { FindOrDo, type Place } from './FindOrDo.tsx'
import { serve } from '../../testing/server.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { useUnder } from './useUnder.ts'

const Screen = ({
  places = [],
  children,
}: {
  places?: readonly Place[]
  children: React.ReactNode
}) => {
  const { over, open, close } = useUnder()
  return (
    <>
      <button type="button" onClick={open}>
        open the box
      </button>
      <main id="main">{children}</main>
      <FindOrDo over={over} onClose={close} places={places} />
    </>
  )
}
const showBox = async (children: React.ReactNode, places: readonly Place[] = []) => {
  serve({ listCourses: [], listTemplates: [] })
  const shown = show(<Screen places={places}>{children}</Screen>)
  const open = async () => {
    await shown.user.click(screen.getByText('open the box'))
    return screen.findByRole('combobox')
  }
  return { ...shown, open }
}
const found = () => screen.queryAllByRole('option').map(({ textContent }) => textContent)

describe('Find or do', () => {
  it('finds whatever can be pressed on the screen by its name, in its row, and presses it', async () => {
    const waived = vi.fn()
    const { user, open } = await showBox(
      <ul>
        <li>
          <span>Week 3 overview</span>
          <button type="button">waive</button>
          <button type="button" disabled>
            mend
          </button>
        </li>
        <li>
          <span>Week 4 overview</span>
          <button type="button" onClick={waived}>
            waive
          </button>
        </li>
      </ul>,
    )
    await user.type(await open(), 'waive 4')
    expect(found()).toEqual(['waive · Week 4 overview'])
    await user.keyboard('{Enter}')
    await waitFor(() => expect(waived).toHaveBeenCalledOnce())
    expect(screen.queryByRole('dialog')).toBeNull()
    await user.type(await open(), 'mend')
    expect(found()).toEqual([])
    expect(screen.getByText(/Nothing of this name/)).toBeTruthy()
  })
  it('walks what it found with arrows, marks what was typed, and does what the arrow stands on', async () => {
    const [first, second] = [vi.fn(), vi.fn()]
    const { user, open } = await showBox(null, [
      { name: 'Templates', does: first },
      { name: 'Terms', does: second },
    ])
    const field = await open()
    await user.type(field, 'té')
    expect(found()).toEqual(['Templates', 'Terms'])
    expect(screen.getAllByText('Te').map(({ tagName }) => tagName)).toEqual(['MARK', 'MARK'])
    await user.keyboard('{ArrowDown}')
    const [, terms] = screen.getAllByRole('option')
    expect(field.getAttribute('aria-activedescendant')).toBe(terms?.id)
    await user.keyboard('{Enter}')
    await waitFor(() => expect(second).toHaveBeenCalledOnce())
    expect(first).not.toHaveBeenCalled()
  })
  it('goes to a field, and opens a menu', async () => {
    const opened = vi.fn()
    const { user, open } = await showBox(
      <>
        <label>
          Department <input />
        </label>
        <button
          type="button"
          aria-haspopup="menu"
          onKeyDown={({ key }) => key === 'Enter' && opened()}
        >
          report ▾
        </button>
      </>,
    )
    await user.type(await open(), 'depart{Enter}')
    await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('Department')))
    await user.type(await open(), 'report{Enter}')
    await waitFor(() => expect(opened).toHaveBeenCalledOnce())
  })
  it('presses a key of the sheet on the cell one stood in last; where one may only read, none that changes something', async () => {
    const pressed: string[] = []
    const sheet = (more: object) => (
      <div
        role="treegrid"
        onKeyDown={({ key, ctrlKey }) => pressed.push(`${ctrlKey ? 'Ctrl ' : ''}${key}`)}
        {...more}
      >
        <div role="gridcell" tabIndex={0}>
          a cell
        </div>
      </div>
    )
    const { user, open, unmount } = await showBox(sheet({}))
    await open()
    expect(found()).not.toContain('a new row · in the outline sheetCtrl Enter')
    await user.keyboard('{Escape}')
    act(() => screen.getByRole('gridcell').focus())
    await user.type(await open(), 'new row')
    expect(found()).toEqual(['a new row · in the outline sheetCtrl Enter'])
    await user.keyboard('{Enter}')
    await waitFor(() => expect(pressed).toEqual(['Ctrl Enter']))
    expect(document.activeElement).toBe(screen.getByRole('gridcell'))
    unmount()
    const reading = await showBox(sheet({ 'data-read-only': '' }))
    act(() => screen.getByRole('gridcell').focus())
    await reading.user.type(await reading.open(), 'row')
    expect(found()).toEqual([
      'open the row’s slip · in the outline sheetF4',
      'select all rows · in the outline sheetCtrl A',
    ])
  })
  it('given up by Escape, puts the keyboard back where it was, and does nothing', async () => {
    const pressed = vi.fn()
    const { user, open } = await showBox(
      <button type="button" onClick={pressed}>
        press
      </button>,
    )
    await user.type(await open(), 'press{Escape}')
    await waitFor(() => expect(document.activeElement).toBe(screen.getByText('open the box')))
    expect(pressed).not.toHaveBeenCalled()
  })
  it('lists every key by where it works', async () => {
    const { open } = await showBox(null)
    await open()
    const sheet = within(screen.getByRole('region', { name: 'In the outline sheet' }))
    expect(sheet.getByText('Ctrl Shift Enter')).toBeTruthy()
    expect(screen.getByRole('region', { name: 'On a page' }).textContent).toContain('Backspace')
  })
})

describe('what can be done on a screen', () => {
  it('is told once in each row, by the name a screen reader says', () => {
    document.body.innerHTML = `<main>
      <button aria-label="Undo the last step">U</button>
      <a href="/x">Courses</a><a>no link</a><button></button>
      <table><tr><th>NAV 110</th><td><button>raise</button><button>raise</button></td></tr></table>
      <label><input type="checkbox"> only new ones</label>
    </main>`
    const root = document.querySelector('main')
    expect(root && actsOnScreen(root).map(({ name, within: row }) => [name, row])).toEqual([
      ['Undo the last step', ''],
      ['Courses', ''],
      ['raise', 'NAV 110'],
      ['only new ones', ''],
    ])
    fireEvent.blur(document.body)
  })
})
