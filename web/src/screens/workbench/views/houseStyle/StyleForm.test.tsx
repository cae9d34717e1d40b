import { render, screen } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { firstHouseStyle, HouseStyle } from '@wickerframe/core'
import { StyleForm } from './StyleForm.tsx'

/** The form with a style that takes each edit. */
const Edited = ({ start, told }: { start: HouseStyle; told: unknown[][] }) => {
  const [style, setStyle] = useState(start)
  return (
    <StyleForm
      style={style}
      mayEdit
      set={(field, was, value) => {
        told.push([field, was, value])
        const [name = '', colour] = field
        setStyle(
          HouseStyle.parse(
            colour === undefined
              ? { ...style, [name]: value }
              : { ...style, colours: { ...style.colours, [colour]: value } },
          ),
        )
      }}
    />
  )
}
const shown = (start: HouseStyle = firstHouseStyle) => {
  const told: unknown[][] = []
  render(<Edited start={start} told={told} />)
  return told
}
const typed = (label: string) => screen.getByRole('textbox', { name: label })

describe('the form of a house style', () => {
  it('takes a colour as people write it, and keeps what is none', async () => {
    const user = userEvent.setup()
    const told = shown()
    await user.clear(typed('notes'))
    await user.type(typed('notes'), 'EEE')
    await user.tab()
    expect(told).toEqual([[['colours', 'tint'], '#f6eee2', '#eeeeee']])
    await user.clear(typed('notes'))
    await user.type(typed('notes'), 'pale yellow')
    await user.tab()
    expect(told).toHaveLength(1)
    expect((typed('notes') as HTMLInputElement).value).toBe('pale yellow')
    expect(screen.getByRole('alert').textContent).toContain('six digits')
  })

  it('says which pair cannot be read, and takes what would do instead of either', async () => {
    const user = userEvent.setup()
    const told = shown({
      ...firstHouseStyle,
      colours: { ...firstHouseStyle.colours, link: '#9cc4f2' },
    })
    expect(screen.queryByText('2 pairs cannot be read well')).not.toBeNull()
    const [forLinks] = screen.getAllByRole('button', { name: /for links on notes and cards/ })
    if (forLinks) await user.click(forLinks)
    expect(told).toEqual([
      [['colours', 'link'], '#9cc4f2', expect.stringMatching(/^#[0-9a-f]{6}$/)],
    ])
    expect(screen.queryByText('All that meets can be read')).not.toBeNull()
  })

  it('changes shapes', async () => {
    const user = userEvent.setup()
    const told = shown()
    await user.selectOptions(screen.getByRole('combobox', { name: /^Headings/ }), 'line')
    expect(told).toEqual([[['headings'], 'bar', 'line']])
  })
})
